import { assetsIn, freeName, type Dial, type Effect, type Measure, type PictureRef } from '@jinx/core/document';

/** What measures are counted in. */
export const MEASURE_UNITS: Readonly<Record<Measure['quantity'], string>> = { length: 'm', time: 's', count: '' };

/** The pictures that an effect shows, or the meshes that it is drawn as: what a dial may stand for. */
export const dialable = (effect: Effect, kind: 'picture' | 'mesh'): PictureRef[] =>
  assetsIn(effect).flatMap(({ rule, hash, holder }) =>
    rule.dialledUse !== null && rule.as === kind ? [{ asset: hash, name: (holder as PictureRef).name }] : [],
  );

/** A new dial of a kind; in words, why there can be none of it. */
export function newDial(effect: Effect, kind: Dial['kind']): Dial | string {
  const name = (wish: string) => freeName(effect.dials, wish);
  switch (kind) {
    case 'number':
      return { kind, name: name('Charge'), least: 0, most: 1, value: 1 };
    case 'switch':
      return { kind, name: name('Switch'), value: true };
    case 'place':
      return { kind, name: name('Target'), at: [0, 1, 3] };
    case 'direction':
      return { kind, name: name('Direction'), turn: [0, 0, 0] };
    case 'picture':
    case 'mesh': {
      const [first] = dialable(effect, kind);
      if (!first)
        return kind === 'picture'
          ? 'No layer shows a picture yet: let one show a picture, and it can be brought out.'
          : 'No layer is drawn as a mesh yet: let one be, and its mesh can be brought out.';
      const { asset, name: title } = first;
      return { kind, name: name(title), standsFor: { asset, name: title }, shows: { asset, name: title } };
    }
  }
}
