import {
  defaultSetting,
  fitLook,
  isRibbon,
  LAYER_SETTINGS,
  newStep,
  setStep,
  plainShape,
  structuredCopy,
  type DrawnAs,
  type Effect,
  type Id,
  type Layer,
  type Place,
} from '../document/index.ts';

/** What a mesh has where the layer has what it began with: solid, lit as it is, turned as it is rather than to the camera. */
const OF_MESH = [
  ['appearance.blend', 'solid'],
  ['appearance.lit', 'card'],
  ['appearance.facing', 'own frame'],
] as const;
type Fitted = (typeof OF_MESH)[number][0];

/** How a layer was drawn, with what goes with it. */
export type DrawnBefore = Pick<Layer, 'drawn'> & {
  readonly look: Layer['look'] | null;
  readonly settings: Pick<Layer['settings'], Fitted>;
};

/** What a layer is drawn as, to be put back when it is drawn so again. A look with a name stays by itself. */
export const drawnNow = ({ drawn, look, settings }: Layer): DrawnBefore =>
  structuredCopy({
    drawn,
    look: look.kind === 'own' ? look : null,
    settings: {
      'appearance.blend': settings['appearance.blend'],
      'appearance.lit': settings['appearance.lit'],
      'appearance.facing': settings['appearance.facing'],
    },
  });

const isAsIs = (layer: Layer, name: Fitted, value: string): boolean => {
  const { base } = layer.settings[name];
  return base.kind === 'fixed' && base.value === value;
};

/**
 * Draws a layer as something else. Drawn so before, it has what it had then; else it gets what shows it at once: a mesh is
 * solid and lit, what comes from a mesh adds its light. Pictures and steps that somebody made are kept.
 */
export function drawLayerAs(draft: Effect, layerId: Id, drawn: DrawnAs, before: DrawnBefore | null): void {
  const layer = draft.layers.byId[layerId]!;
  const was = layer.drawn.kind;
  if (before) {
    const kept = structuredCopy(before);
    layer.drawn = withKnown(draft, kept.drawn, drawn);
    if (kept.look && layer.look.kind === 'own') layer.look = kept.look;
    Object.assign(layer.settings, kept.settings);
    return;
  }
  layer.drawn = drawn;
  if (drawn.kind === 'mesh') {
    // Blending that was chosen for sprites is meant for the mesh too, and then lit as it is.
    const isFree = isAsIs(layer, 'appearance.blend', LAYER_SETTINGS['appearance.blend'].byDefault);
    for (const [name, value] of OF_MESH)
      if (isAsIs(layer, name, LAYER_SETTINGS[name].byDefault) && (isFree || name === 'appearance.facing'))
        layer.settings[name].base = { kind: 'fixed', value };
  } else if (was === 'mesh') {
    for (const [name, value] of OF_MESH)
      if (isAsIs(layer, name, value))
        (layer.settings as Record<string, unknown>)[name] = defaultSetting(LAYER_SETTINGS[name]);
  }
  // A mesh has a shape, and haze a ring, of its own.
  if (drawn.kind === 'mesh' || drawn.kind === 'haze') {
    if (layer.look.kind === 'own' && plainShape(layer)) layer.look.steps = { order: [], byId: {} };
  } else if (was === 'mesh' || was === 'haze') {
    if (layer.look.kind === 'own' && layer.look.steps.order.length === 0) {
      const step = newStep('drawn');
      setStep(step, 'shape', 'soft dot');
      layer.look.steps = { order: ['shape'], byId: { shape: step } };
    }
  }
  fitLook(layer, isRibbon(layer.drawn));
}

/** What it was drawn as, without what is no longer in the effect; where its ends hung on that, a new one. */
function withKnown(effect: Effect, drawn: DrawnAs, made: DrawnAs): DrawnAs {
  const isGone = (place: Place) => place.kind === 'dial' && !effect.dials.byId[place.dial];
  if ('from' in drawn && (isGone(drawn.from) || isGone(drawn.to))) return made;
  if (drawn.kind === 'mesh') return { ...drawn, parts: drawn.parts.filter(({ look }) => effect.looks.byId[look]) };
  if (drawn.kind === 'body' && drawn.front !== null && !effect.fronts.byId[drawn.front])
    return { ...drawn, front: null };
  return drawn;
}
