import {
  actingValue,
  atTier,
  DRAWN_SETTINGS,
  isRibbon,
  LAYER_SETTINGS,
  listed,
  RIBBON_SETTINGS,
  stepSettings,
  stepsOf,
  stepTable,
  type Effect,
  type Layer,
  type Ribbon,
  type Step,
  shownLayers,
} from '@jinx/core/document';
import { linearOf, resolvedColour, slotOf } from '@jinx/core/maths';
import { groupFrame, isStill, lookPlan, ownFrames, type LookPlan } from '@jinx/core/simulation';
import type {
  DrawnAs,
  DrawnHaze,
  DrawnLayer,
  DrawnLook,
  DrawnRibbon,
  DrawnStep,
  StageFog,
  StageLight,
  StageLens,
  StageSurroundings,
} from '@jinx/stage';

type Choice = 'appearance.facing' | 'appearance.blend' | 'appearance.order' | 'appearance.depth' | 'appearance.lit';

function drawnStep(effect: Effect, id: string, step: Step): DrawnStep {
  const [settings, table] = [stepSettings(step), stepTable(step.kind)];
  const choices: Record<string, string | boolean> = {};
  const colours: Record<string, [number, number, number]> = {};
  for (const [name, declaration] of Object.entries(table)) {
    const setting = settings[name]!;
    const base = setting.muted || setting.base.kind !== 'fixed' ? null : setting.base.value;
    if (declaration.value === 'choice') choices[name] = (base as string | null) ?? declaration.byDefault;
    if (declaration.value === 'switch') choices[name] = (base as boolean | null) ?? declaration.byDefault;
    if (declaration.value === 'colour') {
      const colour = base as { hex: string } | { palette: string } | null;
      colours[name] = [...resolvedColour(effect.palette, colour ?? { hex: declaration.byDefault })];
    }
  }
  return {
    id,
    kind: step.kind,
    choices,
    colours,
    isColourRead: 'colour' in settings && !isStill(settings['colour']!),
    picture: 'picture' in step ? (step.picture?.asset ?? null) : null,
    stops:
      step.kind === 'gradient'
        ? listed(step.stops).map(({ item }) => ({
            at: item.at.value,
            rgb: [...resolvedColour(effect.palette, item.colour)] as [number, number, number],
            opacity: item.opacity ?? 1,
          }))
        : [],
  };
}

const planOf = (effect: Effect, layer: Layer): LookPlan =>
  lookPlan(effect, layer, groupFrame(effect, layer.parent).scale);

/** A layer's look as the stage draws it: the steps that act, and where a frame holds their numbers. */
function drawnLook(effect: Effect, layer: Layer, { id, numbers, ownWords, secondsAt }: LookPlan): DrawnLook {
  const places = Object.fromEntries(numbers.map(({ name, kind, at }) => [name, { kind, at }]));
  return {
    plan: id,
    ownWords,
    places: secondsAt === null ? places : { ...places, seconds: { kind: 'own', at: secondsAt } },
    steps: stepsOf(effect, layer).flatMap(({ id: step, item }) =>
      item.muted ? [] : [drawnStep(effect, step, item)],
    ),
  };
}

const onlyStep = (look: DrawnLook, step: string): DrawnLook => ({
  ...look,
  steps: look.steps.filter(({ id }) => id === step),
});

function drawnRibbon(drawn: Ribbon): DrawnRibbon {
  const { form, laid } = drawn.settings;
  return {
    form: actingValue(form, RIBBON_SETTINGS[drawn.kind].form) as DrawnRibbon['form'],
    isTiled: actingValue(laid, RIBBON_SETTINGS[drawn.kind].laid) === 'by the metre',
  };
}

/** A look of a part of a mesh: its numbers stand beside those of the layer's own. */
function partLook(effect: Effect, whole: DrawnLook, { numbers }: LookPlan, lookId: string): DrawnLook {
  const own = numbers.flatMap(({ part, kind, at }) =>
    part?.look === lookId ? [[part.name, { kind, at }] as const] : [],
  );
  return {
    ...whole,
    places: { ...whole.places, ...Object.fromEntries(own) },
    steps: listed(effect.looks.byId[lookId]!.steps).flatMap(({ id, item }) =>
      item.muted ? [] : [drawnStep(effect, id, item)],
    ),
  };
}

/** Things on the stage in the order of a scene: by id. */
const figureOf = ({ stage }: Effect, thing: string): number => [...stage.things.order].sort().indexOf(thing);

function drawnAs(effect: Effect, layer: Layer): DrawnAs {
  const { drawn } = layer;
  if (isRibbon(drawn)) return { kind: 'ribbon', ...drawnRibbon(drawn) };
  switch (drawn.kind) {
    case 'sprite':
      return { kind: 'sprite' };
    case 'light':
      return { kind: 'light', most: effect.quality.tiers[effect.quality.shown].lights };
    case 'mesh': {
      const plan = planOf(effect, layer);
      const whole = drawnLook(effect, layer, plan);
      const { vertexColours, shadow } = drawn.settings;
      return {
        kind: 'mesh',
        meshes: listed(drawn.meshes).map(({ item: { asset, chance } }) => ({ asset, chance })),
        parts: Object.fromEntries(drawn.parts.map(({ part, look }) => [part, partLook(effect, whole, plan, look)])),
        hasOwnColours: vertexColours.muted || vertexColours.base.value,
        hasShadow: !shadow.muted && shadow.base.value,
        slot: slotOf('drawn/mesh'),
      };
    }
    case 'haze':
      return {
        kind: 'haze',
        bends: actingValue(drawn.settings.bends, DRAWN_SETTINGS.haze.bends) as DrawnHaze['bends'],
        picture: drawn.picture?.asset ?? null,
      };
    case 'body': {
      const { stands, colour } = drawn.settings;
      const edge = colour.base.kind === 'fixed' && !colour.muted ? colour.base.value : { hex: '#ff9a3c' };
      return {
        kind: 'body',
        figure: figureOf(effect, drawn.thing),
        isInPlace: !stands.muted && stands.base.value === 'in its place',
        front: drawn.front === null ? null : [...effect.fronts.order].sort().indexOf(drawn.front),
        edgeColour: [...resolvedColour(effect.palette, edge)],
      };
    }
  }
}

interface Kept {
  readonly of: readonly unknown[];
  readonly drawn: DrawnLayer;
}
/** How layers were to be drawn last, by the layer: an edit of one makes nothing of the others anew. */
const kept = new WeakMap<Layer, Kept>();

function keptLayer(layer: Layer, of: readonly unknown[], make: () => DrawnLayer): DrawnLayer {
  const known = kept.get(layer);
  if (known && known.of.every((part, n) => part === of[n])) return known.drawn;
  const drawn = make();
  kept.set(layer, { of, drawn });
  return drawn;
}

/** How each layer of an effect is to be drawn, front to back, as the tier that it is seen in has it; the same objects where nothing of them has changed. */
export function drawnLayers(whole: Effect, { alone }: Pick<Seen, 'alone'> = AS_IT_IS): DrawnLayer[] {
  const effect = atTier(whole);
  const shown = shownLayers(effect);
  const { palette, looks, fronts, groups, channels, measures, dials, stage } = effect;
  const shared = [palette, looks, fronts, groups, channels, measures, dials, stage.things, effect.quality];
  return listed(effect.layers).map(({ id, item }) => {
    const isVisible = shown.has(id);
    const inside = item.inside === null ? null : (effect.layers.byId[item.inside]?.salt ?? null);
    const step = alone?.layer === id ? alone.step : null;
    return keptLayer(item, [...shared, isVisible, inside, step], () => {
      const look = drawnLook(effect, item, planOf(effect, item));
      return {
        ...howItStands(item),
        isVisible,
        inside,
        look: step === null ? look : onlyStep(look, step),
        drawn: drawnAs(effect, item),
      };
    });
  });
}

/** How a layer's particles stand and mix, by its own settings alone. */
function howItStands(layer: Layer): Omit<DrawnLayer, 'isVisible' | 'inside' | 'look' | 'drawn'> {
  const choice = <T>(name: Choice) => actingValue(layer.settings[name], LAYER_SETTINGS[name]) as T;
  const isOn = (name: 'life.aligned' | 'appearance.wraps') =>
    actingValue<boolean>(layer.settings[name], LAYER_SETTINGS[name]);
  const facing = choice<DrawnLayer['facing']>('appearance.facing');
  const isSprite = layer.drawn.kind === 'sprite';
  return {
    salt: layer.salt,
    facing,
    frames: ownFrames(layer),
    isAligned: isOn('life.aligned'),
    blend: choice('appearance.blend'),
    order: choice('appearance.order'),
    depth: choice('appearance.depth'),
    lit: choice('appearance.lit'),
    wraps: isSprite && isOn('appearance.wraps') && (facing === 'ground' || facing === 'own frame'),
  };
}

const texts = new WeakMap<DrawnLayer, string>();
/** Layers as text, to tell whether anything of them has changed. */
export const textOfLayers = (layers: readonly DrawnLayer[]): string =>
  layers
    .map((layer) => {
      const text = texts.get(layer) ?? JSON.stringify(layer);
      texts.set(layer, text);
      return text;
    })
    .join('\n');

/** How the picture is seen beside what the document says: raw without lens and air, dimmed. */
export interface Seen {
  readonly isRaw: boolean;
  readonly isDim: boolean;
  /** A step of a layer's look that is seen alone. */
  readonly alone: { readonly layer: string; readonly step: string } | null;
}
export const AS_IT_IS: Seen = { isRaw: false, isDim: false, alone: null };

/** How much darker what is too bright to work on is shown. */
const DIMMED = 0.7;

export const drawnLens = ({ stage: { lens } }: Effect, { isRaw, isDim }: Omit<Seen, 'alone'>): StageLens => ({
  bloom: lens.bloom.isOn && !isRaw ? { strength: lens.bloom.strength, spread: lens.bloom.spread } : null,
  exposure: isRaw ? 0 : lens.exposure,
  dim: isDim ? DIMMED : 0,
});

export const drawnSurroundings = (
  { stage: { air } }: Effect,
  { isRaw }: Pick<Seen, 'isRaw'>,
): StageSurroundings | null => {
  const { isOn, picture, brightness, turn } = air.surroundings;
  return isOn && picture && !isRaw ? { picture: picture.asset, brightness, turn: (turn * Math.PI) / 180 } : null;
};

export const drawnOwnLights = ({ stage }: Effect): StageLight[] =>
  listed(stage.lights).map(({ item: { at, colour, strength, reach } }) => ({
    ...{ at, strength, reach },
    colour: linearOf(colour),
  }));

export const drawnFog = ({ stage: { air } }: Effect, { isRaw }: Pick<Seen, 'isRaw'>): StageFog | null =>
  air.fog.isOn && !isRaw && air.fog.density > 0
    ? {
        density: air.fog.density / 100,
        height: air.fog.height,
        colour: air.fog.colour === null ? null : [...linearOf(air.fog.colour)],
      }
    : null;
