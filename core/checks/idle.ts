import {
  defaultSetting,
  diff,
  FORCES,
  forceWord,
  LAYER_SETTINGS,
  listed,
  ROUND_SHAPES,
  stepsOf,
  withoutItem,
  type Chapter,
  type Declaration,
  type Effect,
  type Id,
  type Layer,
  type LayerSettingName,
  type NumberSetting,
  type Setting,
  settingsByName,
} from '../document/index.ts';
import type { Problem } from './mend.ts';
import { isNothing, layerMend } from './numbers.ts';

const value = (layer: Layer, name: LayerSettingName): unknown => {
  const { base } = layer.settings[name];
  return base.kind === 'fixed' ? base.value : null;
};
const isSprite = ({ drawn }: Layer) => drawn.kind === 'sprite';
/** Kinds whose particles stand each by itself, and can be turned and stretched. */
const stands = ({ drawn }: Layer) => ['sprite', 'mesh', 'haze'].includes(drawn.kind);
const isFlat = (layer: Layer) => ['ground', 'own frame'].includes(String(value(layer, 'appearance.facing')));
/**
 * Settings that act only where something else is so: when, and what they lack otherwise. Measures of a source are not among
 * them: those of one shape wait while another is tried.
 */
export const ACTS_WHEN: Partial<Record<LayerSettingName, readonly [(layer: Layer) => boolean, string]>> = {
  'motion.axis': [
    (layer) => ['axis', 'round'].includes(String(value(layer, 'motion.launch'))),
    'it is not launched along an axis or round one',
  ],
  'motion.angle': [(layer) => value(layer, 'motion.launch') === 'tangent', 'it is not launched along a tangent'],
  'release.heldSize': [({ front }) => front !== null, 'nothing holds it'],
  'release.heldOpacity': [({ front }) => front !== null, 'nothing holds it'],
  'life.turning': [stands, 'it is drawn as something that does not turn'],
  'life.tilt': [
    (layer) => stands(layer) && value(layer, 'appearance.facing') === 'own frame',
    'it does not stand as it is turned',
  ],
  'life.depth': [({ drawn }) => drawn.kind === 'mesh', 'it is no mesh'],
  'appearance.lengthening': [
    (layer) => stands(layer) && value(layer, 'appearance.facing') === 'motion',
    'it does not lie along its motion',
  ],
  'appearance.wrapDepth': [
    (layer) => isSprite(layer) && isFlat(layer) && value(layer, 'appearance.wraps') === true,
    'it does not wrap',
  ],
  'appearance.litShare': [(layer) => value(layer, 'appearance.lit') !== 'unlit', 'it is not lit'],
  'appearance.covers': [
    (layer) => value(layer, 'appearance.blend') === 'mixed',
    'its blending is not normal to additive',
  ],
  'appearance.threshold': [(layer) => value(layer, 'appearance.blend') === 'holes', 'its blending is not cut-out'],
};

/** Whether somebody gave a setting more than a size: sizes and times go along when an effect is made larger or faster. */
function isSet(setting: Setting, declaration: Declaration): boolean {
  if (setting.muted || diff(defaultSetting(declaration), setting).length === 0) return false;
  const goesAlong = declaration.value === 'number' && ['m', 's', 'm/s'].includes(declaration.unit);
  return !goesAlong || setting.shapers.order.length > 0;
}

/** Settings that were set and cannot act, as one finding of a layer: they may have been left from another try. */
function idleSettings(effect: Effect, layerId: Id): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  const idle = Object.entries(ACTS_WHEN).flatMap(([key, [acts, why]]) => {
    const name = key as LayerSettingName;
    const setting = layer.settings[name];
    const declaration = LAYER_SETTINGS[name];
    return isSet(setting, declaration) && !acts(layer) ? [{ name, word: declaration.name, why }] : [];
  });
  if (idle.length === 0) return [];
  return [
    {
      id: 'idle',
      sentence: `${layer.name} has something set that cannot act: ${idle.map(({ word, why }) => `${word}, for ${why}`).join('; ')}.`,
      severity: 'doubtful',
      where: LAYER_SETTINGS[idle[0]!.name].chapter as Chapter,
      measure: idle.length,
      mend: layerMend(layerId, 'Set back what cannot act', (own) => {
        for (const { name } of idle) settingsByName(own)[name] = defaultSetting(LAYER_SETTINGS[name]);
      }),
    },
  ];
}

const EVEN_STEPS = new Set(['levels', 'contrast', 'tint', 'intensity', 'soft']);

/** Whether a layer's sprites look the same however they are turned. */
function looksRound(effect: Effect, layer: Layer): boolean {
  const { settings } = layer;
  const isEven = (['life.width', 'life.height'] as const).every(
    (name) => !settings[name].shapers.order.length && value(layer, name) === 100,
  );
  const acting = stepsOf(effect, layer).filter(({ item }) => !item.muted);
  const isOfCentre = (['appearance.pivotAcross', 'appearance.pivotAlong'] as const).some(
    (name) => !isNothing(settings[name], effect),
  );
  return (
    isSprite(layer) &&
    isEven &&
    !isOfCentre &&
    value(layer, 'appearance.facing') !== 'own frame' &&
    acting.length > 0 &&
    acting.every(
      ({ item }) =>
        EVEN_STEPS.has(item.kind) ||
        (item.kind === 'drawn' &&
          item.settings.shape.base.kind === 'fixed' &&
          ROUND_SHAPES.includes(item.settings.shape.base.value)),
    )
  );
}

/** Turning that shows nothing. */
function turningUnseen(effect: Effect, layerId: Id): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  if (!looksRound(effect, layer) || isNothing(layer.settings['life.turning'], effect)) return [];
  return [
    {
      id: 'turning',
      sentence: `${layer.name} turns, which shows nothing on a round ${roundWord(effect, layer)}.`,
      severity: 'doubtful',
      where: 'life',
      mend: layerMend(layerId, 'Let it not turn', (own) => {
        Object.assign(own.settings['life.turning'], defaultSetting(LAYER_SETTINGS['life.turning']));
      }),
    },
  ];
}
function roundWord(effect: Effect, layer: Layer): string {
  const drawn = stepsOf(effect, layer).find(({ item }) => item.kind === 'drawn')?.item;
  const shape =
    drawn?.kind === 'drawn' && drawn.settings.shape.base.kind === 'fixed' ? drawn.settings.shape.base.value : '';
  return shape === 'soft dot' ? 'dot' : shape;
}

/** Forces of a layer that do nothing: no strength, or a share of none. */
function idleForces(effect: Effect, layerId: Id): Problem[] {
  const { name, forces } = effect.layers.byId[layerId]!;
  return listed(forces).flatMap(({ id, item }) => {
    const settings = settingsByName<NumberSetting>(item);
    const { strengths } = FORCES[item.kind];
    const isWeak = strengths.length > 0 && strengths.every((each) => isNothing(settings[each]!, effect));
    const isForNone = 'share' in settings && isNothing(settings['share']!, effect);
    if (item.muted || (!isWeak && !isForNone)) return [];
    return [
      {
        id: `force/${id}`,
        sentence: `${name} has ${forceWord(item.kind)} that does nothing: ${isWeak ? 'it has no strength' : 'it acts on none of them'}.`,
        severity: 'doubtful',
        where: 'motion',
        mend: layerMend(layerId, 'Take it away', (own) => (own.forces = withoutItem(own.forces, id))),
      } satisfies Problem,
    ];
  });
}

/** What was set, and cannot act. */
export const idleProblems = (effect: Effect, layerId: Id): Problem[] => [
  ...idleSettings(effect, layerId),
  ...turningUnseen(effect, layerId),
  ...idleForces(effect, layerId),
];
