import type { NumberSetting } from '../../settings/index.ts';
import type { Effect } from '../schema/index.ts';

type Base = NumberSetting['base'];
type Measures = Pick<Effect, 'measures'>;

/** What a number begins with, a measure taken for its value. */
export const unmeasured = (base: Base, { measures }: Measures): Exclude<Base, { kind: 'measure' }> =>
  base.kind === 'measure' ? { kind: 'fixed', value: measures.byId[base.measure]?.value ?? 0 } : base;

/** The most that a number begins with: of a spread its upper end, of a measure its value; null where it is taken from elsewhere. */
export function highestBase(base: Base, effect: Measures): number | null {
  const plain = unmeasured(base, effect);
  return plain.kind === 'fixed' ? plain.value : plain.kind === 'spread' ? plain.high : null;
}

/** The middle of what a number begins with; null where it is taken from elsewhere. */
export const middleBase = (base: Base, effect: Measures): number | null =>
  base.kind === 'spread' ? (base.low + base.high) / 2 : highestBase(base, effect);
