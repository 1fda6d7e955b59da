import { colour, drawn, hex, inAndOut, layer, set, step } from '@jinx/core/building';
import { collectionOf, type Colour, type Effect, type Id, type Layer, type Place } from '@jinx/core/document';

export * from '@jinx/core/building';

/** Hashes of the kit's assets that an effect may use, by the name of their file without its ending. */
export type KitAssets = Readonly<Record<string, string>>;

/** Lets a layer be drawn as meshes of the kit, all as likely. */
export const meshes = (
  made: Layer,
  kit: KitAssets,
  names: readonly string[],
  values: Parameters<typeof drawn>[2] = {},
) =>
  drawn(made, 'mesh', values, {
    meshes: collectionOf(names.map((name) => [name, { asset: kit[name]!, name, chance: 1 }])),
  });

/** How opaque dark water is over the effect's time. */
const WELLING = { base: 88, over: inAndOut(0.15, 0.85) } as const;

/**
 * A pool of dark marsh water that wells up under an effect and sinks with it: it darkens bright ground, so that what
 * shines above it is seen at noon as well.
 */
export function darkWater(
  name: string,
  salt: number,
  place: Place,
  size: number,
  values: Parameters<typeof set>[1] = {},
  tint = '#1f2b2b',
): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'point', place },
    {
      'births.standing': 1,
      'motion.ride': 100,
      'life.size': {
        base: size,
        over: [
          [0, 0.35],
          [0.2, 1],
          [1, 1],
        ],
      },
      'life.opacity': WELLING,
      'appearance.facing': 'ground',
      'appearance.blend': 'multiply',
      ...values,
    },
    step('warp', { strength: 22, grains: 2.5, change: 0.35 }),
    step('drawn', { shape: 'disc', softness: 80 }),
    step('drawn', { shape: 'clouds', grains: 3.5, softness: 80, change: 0.3, amount: 18 }),
  );
  return colour(made, [0, hex(tint)]);
}

/** Light that plays on dark water, in bright threads that wander. */
export function shimmer(name: string, salt: number, place: Place, size: number, tint: Colour, opacity = 60): Layer {
  const made = darkWater(name, salt, place, size, {
    'appearance.blend': 'additive',
    'life.opacity': { ...WELLING, base: opacity },
  });
  made.look = {
    kind: 'own',
    steps: collectionOf([
      ['bent', step('warp', { strength: 20, grains: 6, change: 0.5 })],
      ['cells', step('drawn', { shape: 'cells', grains: 6, softness: 100, change: 0.35 })],
      ['between', step('levels', { onto: 'opacity', black: 21, white: 1 })],
      ['fades', step('drawn', { shape: 'soft dot', softness: 45 })],
    ]),
  };
  return colour(made, [0, tint]);
}

export const layers = (effect: Effect, all: Readonly<Record<Id, Layer>>): void => {
  effect.layers = collectionOf(Object.entries(all));
};
