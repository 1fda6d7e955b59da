import type { NumberSetting } from '../../settings/index.ts';
import type { Effect } from '../schema/index.ts';

type Base = NumberSetting['base'];
type Measures = Pick<Effect, 'measures'>;

/** The most that a number begins with: of a spread its upper end, of a measure its value; null where it is taken from elsewhere. */
export function highestBase(base: Base, { measures }: Measures): number | null {
  switch (base.kind) {
    case 'fixed':
      return base.value;
    case 'spread':
      return base.high;
    case 'measure':
      return measures.byId[base.measure]?.value ?? 0;
    case 'taken':
      return null;
  }
}

/** The middle of what a number begins with; null where it is taken from elsewhere. */
export const middleBase = (base: Base, effect: Measures): number | null =>
  base.kind === 'spread' ? (base.low + base.high) / 2 : highestBase(base, effect);
