import {
  highestBase,
  listed,
  middleBase,
  type Effect,
  type Id,
  type Layer,
  type NumberSetting,
  type Setting,
} from '../document/index.ts';
import type { Mend } from './mend.ts';

/** The most that a number begins with, before shapers: of a spread its upper end; 0 where it is muted or taken. */
export function mostOf({ base, muted }: NumberSetting, effect: Pick<Effect, 'measures'>): number {
  return muted ? 0 : (highestBase(base, effect) ?? 0);
}

/** The middle of what a number begins with, before shapers. */
export const middleOf = ({ base, muted }: NumberSetting, effect: Pick<Effect, 'measures'>): number =>
  muted ? 0 : (middleBase(base, effect) ?? 0);

export const isShaped = ({ shapers, muted }: Setting): boolean =>
  !muted && listed(shapers).some(({ item }) => !item.muted);

/** Whether a number is nothing for every particle at every time. */
export const isNothing = (setting: NumberSetting, effect: Pick<Effect, 'measures'>): boolean => {
  const { base } = setting;
  const low = base.kind === 'spread' && !setting.muted ? base.low : 0;
  return !isShaped(setting) && mostOf(setting, effect) === 0 && low === 0;
};

/** A mend that changes one layer. */
export const layerMend = (layerId: Id, label: string, recipe: (layer: Layer, draft: Effect) => void): Mend => ({
  label,
  apply: (draft) => recipe(draft.layers.byId[layerId]!, draft),
});

/** Scales what a number begins with, in place. A measure is left as it is: others use it. */
export function scaleBase(setting: NumberSetting, times: number): void {
  const { base } = setting;
  if (base.kind === 'fixed') base.value *= times;
  else if (base.kind === 'spread') [base.low, base.high] = [base.low * times, base.high * times];
}

/** A number as a sentence says it. */
export const said = (value: number): string => {
  const digits = Math.abs(value) >= 100 ? 0 : Math.abs(value) >= 10 ? 1 : 2;
  return String(Number(value.toFixed(digits)));
};
