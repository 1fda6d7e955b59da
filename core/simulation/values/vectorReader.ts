import {
  listed,
  withItem,
  emptyCollection,
  type Effect,
  type NumberDeclaration,
  type NumberSetting,
  type VectorDeclaration,
  type VectorSetting,
} from '../../document/index.ts';
import { NumberReader, type NumberReaderOptions } from './numberReader.ts';
import type { Reading } from './reading.ts';

export const AXIS_NAMES = ['x', 'y', 'z'] as const;

/** One axis of a vector as a number by itself: its base, and the shapers that are for it. */
function axisOf({ base, shapers, muted }: VectorSetting, axis: 0 | 1 | 2): NumberSetting {
  const name = AXIS_NAMES[axis];
  const own = listed(shapers).filter(({ item }) => item.axis === undefined || item.axis === name);
  return {
    base:
      base.kind === 'fixed'
        ? { kind: 'fixed', value: base.value[axis] }
        : { kind: 'spread', low: base.low[axis], high: base.high[axis] },
    shapers: own.reduce((kept, { id, item }) => withItem(kept, id, item), emptyCollection<(typeof own)[0]['item']>()),
    muted,
  };
}

/** A vector setting ready to be read, axis by axis. */
export class VectorReader {
  readonly axes: readonly [NumberReader, NumberReader, NumberReader];
  readonly isConstant: boolean;
  /** Whether every particle reads the same at one moment. */
  readonly isShared: boolean;
  readonly isShaped: boolean;

  /** `name` tells its random draws from others'; a number instead of options is the scale of the groups it stands in. */
  constructor(
    setting: VectorSetting,
    declaration: VectorDeclaration,
    name: string,
    effect: Pick<Effect, 'measures'>,
    options: number | NumberReaderOptions = 1,
  ) {
    const made = typeof options === 'number' ? { group: options } : options;
    const axis = (n: 0 | 1 | 2) => {
      const declared: NumberDeclaration = {
        ...declaration,
        value: 'number',
        byDefault: declaration.byDefault[n],
        bases: ['fixed', 'spread'],
      };
      return new NumberReader(axisOf(setting, n), declared, `${name}/${AXIS_NAMES[n]}`, effect, made);
    };
    this.axes = [axis(0), axis(1), axis(2)];
    this.isConstant = this.axes.every((reader) => reader.isConstant);
    this.isShared = this.axes.every((reader) => reader.isShared);
    this.isShaped = this.axes.some((reader) => reader.isShaped);
  }

  readInto(out: Float64Array | number[], reading: Reading): void {
    for (let n = 0; n < 3; n++) out[n] = this.axes[n]!.read(reading);
  }

  /** What it always is where nothing but dials is known of anything. */
  atDials(dials: Reading['dials']): [number, number, number] {
    const [x, y, z] = this.axes;
    return [x.atDials(dials), y.atDials(dials), z.atDials(dials)];
  }
}
