import {
  atEffect,
  burst,
  collectionOf,
  curveShaper,
  newDrawn,
  newForce,
  newFront,
  newLayer,
  newLink,
  newRibbon,
  setNumber,
  type Effect,
  type Key,
  type Layer,
  setWidthAlong,
  isRibbon,
} from '../document/index.ts';

export const withForce = (layer: Layer, kind: Parameters<typeof newForce>[0], set: Record<string, number> = {}) => {
  const force = newForce(kind, atEffect([0, 1, 0]));
  for (const [name, value] of Object.entries(set))
    (force.settings as unknown as Record<string, { base: unknown }>)[name]!.base = { kind: 'fixed', value };
  layer.forces = collectionOf([['f', force]]);
};
export const oneShot = (effect: Effect, opening: number) =>
  (effect.stretches = { opening, hold: { kind: 'none' }, closing: 0, preRoll: 0 });
export const asBursts = (layer: Layer, ...bursts: ReturnType<typeof burst>[]) => {
  setNumber(layer, 'births.rate', 0);
  layer.bursts = collectionOf(bursts.map((each, n) => [`b${n}`, each]));
};
export const standing = (layer: Layer) => {
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.standing', 1);
};
export const trail = (layer: Layer, set: Record<string, number>, ends = 'stays') => {
  const drawn = newRibbon('trail');
  if (drawn.kind !== 'trail') throw new Error('no trail');
  for (const [name, value] of Object.entries(set))
    (drawn.settings as unknown as Record<string, { base: unknown }>)[name]!.base = { kind: 'fixed', value };
  drawn.settings.ends.base = { kind: 'fixed', value: ends };
  layer.drawn = drawn;
};
/** A trail as wide at its end as at its head. */
export const blunt = (layer: Layer, ends: string) => {
  trail(layer, {}, ends);
  if (isRibbon(layer.drawn)) setWidthAlong(layer.drawn, 100, 100);
};
export const child = (
  effect: Effect,
  on: 'death' | 'birth',
  set: Record<string, number>,
  shape: (own: Layer) => void,
) => {
  const own = newLayer('spores', 3);
  setNumber(own, 'births.rate', 0);
  shape(own);
  const link = newLink(on, 'spores', 5);
  for (const [name, value] of Object.entries(set))
    (link.settings as unknown as Record<string, { base: unknown }>)[name]!.base = { kind: 'fixed', value };
  effect.layers.byId['motes']!.links = collectionOf([['l', link]]);
  effect.layers = collectionOf([
    ['motes', effect.layers.byId['motes']!],
    ['spores', own],
  ]);
};
export const keyAfterBirth = (layer: Layer, seconds: number) => {
  const key = (at: Key['at'], value: number): Key => ({ at, value, slopeIn: 0, slopeOut: 0 });
  layer.settings['life.size'].shapers = collectionOf([
    [
      's',
      {
        ...curveShaper([[0, 1]]),
        mapping: {
          kind: 'curve' as const,
          curve: {
            keys: collectionOf([
              ['a', key({ anchor: 'share', value: 0 }, 1)],
              ['b', key({ anchor: 'afterBirth', value: seconds }, 0.5)],
            ]),
          },
        },
      },
    ],
  ]);
};
export const crates = (effect: Effect, size: number) => {
  const make = (name: string, salt: number, metres: number) => {
    const own = newLayer(name, salt);
    standing(own);
    setNumber(own, 'life.size', metres);
    const drawn = newDrawn('mesh');
    if (drawn.kind === 'mesh')
      drawn.meshes = collectionOf([['m', { asset: 'c'.repeat(64), name: 'crate', chance: 1 }]]);
    own.drawn = drawn;
    own.settings['appearance.blend'].base = { kind: 'fixed', value: 'solid' };
    return own;
  };
  effect.layers = collectionOf([
    ['inner', make('Inner', 1, 1)],
    ['outer', make('Outer', 2, size)],
  ]);
};

export function place(layer: Layer, last: number): void {
  const key = (at: number) => ({
    at,
    offset: [0, 1, 0] as [number, number, number],
    turn: [0, 0, 0] as [number, number, number],
    ease: 'smooth' as const,
  });
  layer.source = {
    kind: 'point',
    place: {
      ...atEffect([0, 1, 0]),
      keys: collectionOf([
        ['a', key(0)],
        ['b', key(last)],
      ]),
    },
  };
}
export function held(layer: Layer, effect: Effect, atBirth: number): void {
  effect.fronts = collectionOf([['front', newFront('Border', 'sphere', atEffect())]]);
  layer.front = 'front';
  layer.source = { kind: 'point', place: atEffect() };
  layer.settings['life.opacity'].shapers = collectionOf([
    [
      'fade',
      curveShaper([
        [0, atBirth],
        [0.2, 1],
        [0.7, 1],
        [1, 0],
      ]),
    ],
  ]);
}
export function twice(layer: Layer, effect: Effect, name: string): void {
  effect.layers = collectionOf([
    ['motes', layer],
    ['other', newLayer(name, 9)],
  ]);
}
