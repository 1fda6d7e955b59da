import {
  LAYER_SETTINGS,
  shownOpacity,
  type Effect,
  type Layer,
  type LayerSettingName,
  type NumberDeclaration,
  type NumberSetting,
} from '../../document/index.ts';
import { NumberReader } from './numberReader.ts';
import { ColourReader } from './colourReader.ts';

export type Numbers = {
  readonly [K in LayerSettingName as Layer['settings'][K] extends NumberSetting ? K : never]: NumberReader;
};

/** A number of a layer as it acts: an opacity is what the stops of the colour make of it. */
const actingSetting = ({ settings }: Layer, name: LayerSettingName): NumberSetting =>
  name === 'life.opacity' ? shownOpacity(settings[name], settings['life.colour']) : (settings[name] as NumberSetting);

/** One number of a layer, ready to be read, by itself and outside of any group. */
export const numberReader = (layer: Layer, name: keyof Numbers, effect: Pick<Effect, 'measures'>): NumberReader =>
  new NumberReader(actingSetting(layer, name), LAYER_SETTINGS[name] as NumberDeclaration, name, effect);

/** The number settings of a layer, ready to be read; `group` is the scale of its groups, `larger` what is made of sizes beside. */
export function numberReaders(layer: Layer, effect: Pick<Effect, 'measures'>, group: number, larger = 1): Numbers {
  const entries = Object.entries(LAYER_SETTINGS).flatMap(([name, declaration]) => {
    if (declaration.value !== 'number') return [];
    const setting = actingSetting(layer, name as LayerSettingName);
    const times = name === 'life.size' ? larger : 1;
    return [[name, new NumberReader(setting, declaration as NumberDeclaration, name, effect, { group, times })]];
  });
  return Object.fromEntries(entries) as Numbers;
}

/** Whether a layer's particles turn so many times in a life, rather than so fast. */
export const turnsInLives = ({ settings }: Layer): boolean =>
  !settings['life.turns'].muted && settings['life.turns'].base.value === 'turns a life';

/** A layer's colour, ready to be read; `group` is the scale of its groups. */
export const colourReader = (
  layer: Layer,
  effect: Pick<Effect, 'palette'>,
  group: number,
  isPassedOn = false,
): ColourReader =>
  new ColourReader(layer.settings['life.colour'], LAYER_SETTINGS['life.colour'], 'life.colour', effect, {
    isPassedOn,
    group,
  });
