import { describe, expect, it } from 'vitest';
import {
  atBone,
  atBorder,
  atEffect,
  atThing,
  burst,
  collectionOf,
  curveShaper,
  listed,
  newDrawn,
  newForce,
  newFront,
  newLayer,
  newLink,
  newRibbon,
  newStep,
  parseEffect,
  setNumber,
  structuredCopy,
  type Effect,
  type Key,
  type Layer,
} from '../document/index.ts';
import { effectOf } from '../testing/effects.ts';
import { bendingTube } from '../testing/rigs.ts';
import { findings, type Observed } from './findings.ts';
import { flashesASecond } from './light.ts';

const RIGS = new Map([['figure', bendingTube()]]);
const NOTHING_OBSERVED: Observed = { refused: {}, isBudgetFull: false };
const all = (effect: Effect, observed = NOTHING_OBSERVED) => findings(effect, RIGS, observed);

interface Kind {
  readonly name: string;
  /** Part of its finding's id. */
  readonly id: string;
  readonly says: RegExp;
  readonly wrong: (layer: Layer, effect: Effect) => void;
  /** The same but for what makes it wrong. */
  readonly right: (layer: Layer, effect: Effect) => void;
  readonly observed?: Observed;
  /** False where no step repairs it. */
  readonly mends?: false;
}

const withForce = (layer: Layer, kind: Parameters<typeof newForce>[0], set: Record<string, number> = {}) => {
  const force = newForce(kind, atEffect([0, 1, 0]));
  for (const [name, value] of Object.entries(set))
    (force.settings as unknown as Record<string, { base: unknown }>)[name]!.base = { kind: 'fixed', value };
  layer.forces = collectionOf([['f', force]]);
};
const oneShot = (effect: Effect, opening: number) =>
  (effect.stretches = { opening, hold: { kind: 'none' }, closing: 0, preRoll: 0 });
const asBursts = (layer: Layer, ...bursts: ReturnType<typeof burst>[]) => {
  setNumber(layer, 'births.rate', 0);
  layer.bursts = collectionOf(bursts.map((each, n) => [`b${n}`, each]));
};
const standing = (layer: Layer) => {
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.standing', 1);
};
const trail = (layer: Layer, set: Record<string, number>, ends = 'stays') => {
  const drawn = newRibbon('trail');
  if (drawn.kind !== 'trail') throw new Error('no trail');
  for (const [name, value] of Object.entries(set))
    (drawn.settings as unknown as Record<string, { base: unknown }>)[name]!.base = { kind: 'fixed', value };
  drawn.settings.ends.base = { kind: 'fixed', value: ends };
  layer.drawn = drawn;
};
const child = (effect: Effect, on: 'death' | 'birth', set: Record<string, number>, shape: (own: Layer) => void) => {
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
const keyAfterBirth = (layer: Layer, seconds: number) => {
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
const crates = (effect: Effect, size: number) => {
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

const KINDS: readonly Kind[] = [
  {
    name: 'dead seconds',
    id: 'dead0',
    says: /^Nothing lives for 1\.\d+ s, from 2\.\d+ s on/,
    wrong: (layer, effect) => {
      oneShot(effect, 4);
      layer.births.until = atBorder('start', 1.5);
    },
    right: (_, effect) => oneShot(effect, 4),
  },
  {
    name: 'a burst past its stretch',
    id: 'burst/b1',
    says: /a burst 2 s into the opening, which is 1\.5 s long: it never comes/,
    wrong: (layer, effect) => {
      oneShot(effect, 1.5);
      asBursts(layer, burst('opening', 0, 30), burst('opening', 2, 30));
      setNumber(layer, 'births.life', 1.5);
    },
    right: (layer, effect) => {
      oneShot(effect, 1.5);
      asBursts(layer, burst('opening', 0, 30), burst('opening', 1.4, 30));
      setNumber(layer, 'births.life', 1.5);
    },
  },
  {
    name: 'a signal that never comes',
    id: 'nothing',
    says: /it waits for Contact, which is not tried on the stage/,
    wrong: (layer, effect) => {
      asBursts(layer, { ...burst('opening', 0, 30), signal: 'contact' });
      effect.signals = collectionOf([['contact', { name: 'Contact', tried: null }]]);
    },
    right: (layer, effect) => {
      asBursts(layer, { ...burst('opening', 0, 30), signal: 'contact' });
      effect.signals = collectionOf([['contact', { name: 'Contact', tried: { stretch: 'hold', at: 0.2 } }]]);
    },
  },
  {
    name: 'a hit past its stretch',
    id: 'hit/h',
    says: /a hit 9 s into the hold/,
    wrong: (layer) => {
      const hit = { stretch: 'hold' as const, at: 9, place: atEffect(), strength: 100 };
      layer.source = {
        kind: 'hits',
        hits: collectionOf([
          ['g', { ...hit, at: 0 }],
          ['h', hit],
        ]),
      };
      setNumber(layer, 'births.life', 4);
    },
    right: (layer) => {
      const hit = { stretch: 'hold' as const, at: 2, place: atEffect(), strength: 100 };
      layer.source = {
        kind: 'hits',
        hits: collectionOf([
          ['g', { ...hit, at: 0 }],
          ['h', hit],
        ]),
      };
      setNumber(layer, 'births.life', 4);
    },
  },
  {
    name: 'births that end before they begin',
    id: 'time/window',
    says: /no time to be born in/,
    wrong: (layer) => (layer.births = { from: atBorder('start', 2), until: atBorder('start', 1) }),
    right: (layer) => (layer.births = { from: atBorder('start', 0), until: atBorder('letGo', 0) }),
  },
  {
    name: 'keys past the shortest life',
    id: 'time/keys',
    says: /size of motes has a key 0\.8 s after birth, past the shortest life of 0\.5 s/,
    wrong: (layer) => {
      setNumber(layer, 'births.life', [0.5, 1.5]);
      keyAfterBirth(layer, 0.8);
    },
    right: (layer) => {
      setNumber(layer, 'births.life', [0.5, 1.5]);
      keyAfterBirth(layer, 0.4);
    },
  },
  {
    name: 'keys of a place past the end',
    id: 'time/placeKeys',
    says: /has a key at 20 s, past the end at 5 s/,
    wrong: (layer) => place(layer, 20),
    right: (layer) => place(layer, 4),
    mends: false,
  },
  {
    name: 'a value that cannot act',
    id: 'idle/idle',
    says: /covers, for it is not drawn partly covering/,
    wrong: (layer) => setNumber(layer, 'appearance.covers', 20),
    right: (layer) => {
      setNumber(layer, 'appearance.covers', 20);
      layer.settings['appearance.blend'].base = { kind: 'fixed', value: 'mixed' };
    },
  },
  {
    name: 'turning on a round dot',
    id: 'idle/turning',
    says: /turns, which shows nothing on a round dot/,
    wrong: (layer) => setNumber(layer, 'life.turning', 90),
    right: (layer) => {
      setNumber(layer, 'life.turning', 90);
      setNumber(layer, 'life.width', 50);
    },
  },
  {
    name: 'a force without strength',
    id: 'idle/force',
    says: /wind that does nothing: it has no strength/,
    wrong: (layer) => withForce(layer, 'wind', { strength: 0 }),
    right: (layer) => withForce(layer, 'wind', { strength: 1 }),
  },
  {
    name: 'a force for none',
    id: 'idle/force',
    says: /acts on none of them/,
    wrong: (layer) => withForce(layer, 'wind', { share: 0 }),
    right: (layer) => withForce(layer, 'wind', { share: 1 }),
  },
  {
    name: 'outward speed in an orbit',
    id: 'motion/orbit',
    says: /leaves outward at 1 m\/s, against the orbit/,
    wrong: (layer) => {
      withForce(layer, 'orbit');
      setNumber(layer, 'motion.speed', 1);
    },
    right: (layer) => {
      withForce(layer, 'orbit');
      setNumber(layer, 'motion.speed', 0);
    },
  },
  {
    name: 'a force on something gone',
    id: 'motion/adrift',
    says: /attraction hangs on something, which is not on the stage/,
    wrong: (layer) => (layer.forces = collectionOf([['f', newForce('attraction', atThing('gone'))]])),
    right: (layer) => (layer.forces = collectionOf([['f', newForce('attraction', atThing('figure'))]])),
  },
  {
    name: 'a force on a bone that is not there',
    id: 'motion/adrift',
    says: /the bone "tail"/,
    wrong: (layer) => (layer.forces = collectionOf([['f', newForce('attraction', atBone('figure', 'tail'))]])),
    right: (layer) =>
      (layer.forces = collectionOf([['f', newForce('attraction', atBone('figure', bendingTube().bones[0]!.name))]])),
  },
  {
    name: 'children frozen by what they took over',
    id: 'motion/frozen',
    says: /spores goes only by the speed it takes over from motes, which stands still/,
    wrong: (layer, effect) => {
      setNumber(layer, 'motion.speed', 0);
      child(effect, 'birth', { velocity: 100 }, (own) => setNumber(own, 'motion.speed', 0));
    },
    right: (layer, effect) => {
      setNumber(layer, 'motion.speed', 1);
      child(effect, 'birth', { velocity: 100 }, (own) => setNumber(own, 'motion.speed', 0));
    },
  },
  {
    name: 'children that take over no size',
    id: 'motion/sizeless',
    says: /takes over the size that motes dies with, which is none/,
    wrong: (layer, effect) => {
      layer.settings['life.size'].shapers = collectionOf([
        [
          's',
          curveShaper([
            [0, 1],
            [1, 0],
          ]),
        ],
      ]);
      child(effect, 'death', { size: 100 }, () => undefined);
    },
    right: (_, effect) => child(effect, 'death', { size: 100 }, () => undefined),
  },
  {
    name: 'what is ten times the figure',
    id: 'large',
    says: /times as high as/,
    wrong: (layer) => setNumber(layer, 'life.size', 60),
    right: (layer) => setNumber(layer, 'life.size', 2),
  },
  {
    name: 'what is smaller than a tenth of a point',
    id: 'small',
    says: /0\.5 mm large/,
    wrong: (layer) => setNumber(layer, 'life.size', 0.0005),
    right: (layer) => setNumber(layer, 'life.size', 0.005),
  },
  {
    name: 'what is far from the stage',
    id: 'far',
    says: /90 m away/,
    wrong: (layer) => (layer.source = { kind: 'point', place: atEffect([0, 0, 90]) }),
    right: (layer) => (layer.source = { kind: 'point', place: atEffect([0, 0, 9]) }),
  },
  {
    name: 'what is brighter than the screen',
    id: 'bright',
    says: /motes is 90 times as bright as the screen/,
    wrong: (layer) => setNumber(layer, 'life.intensity', 90),
    right: (layer) => setNumber(layer, 'life.intensity', 9),
  },
  {
    name: 'what is too faint on its surround',
    id: 'faint',
    says: /too faint on noon: at most it changes what is behind it by 1\./,
    wrong: (layer, effect) => {
      standing(layer);
      setNumber(layer, 'life.intensity', 0.01);
      effect.stage.surround = 'noon';
    },
    right: (layer, effect) => {
      standing(layer);
      setNumber(layer, 'life.intensity', 0.01);
      effect.stage.surround = 'dusk';
    },
  },
  {
    name: 'flashes that may harm',
    id: 'flashes',
    says: /flashes 5 times a second over [\d.]+% of the picture/,
    wrong: (layer, effect) => {
      oneShot(effect, 2);
      asBursts(layer, { ...burst('opening', 0, 3), times: 10, every: 0.2 });
      setNumber(layer, 'births.life', 0.15);
      setNumber(layer, 'life.size', 12);
    },
    right: (layer, effect) => {
      oneShot(effect, 2);
      asBursts(layer, { ...burst('opening', 0, 3), times: 4, every: 0.5 });
      setNumber(layer, 'births.life', 0.45);
      setNumber(layer, 'life.size', 12);
    },
  },
  {
    name: 'a coarse trail',
    id: 'coarse',
    says: /trail is coarse: 4 points lie along 1\.2 m/,
    wrong: (layer) => {
      setNumber(layer, 'motion.speed', 2);
      trail(layer, { every: 0.3, lasts: 0.6 });
    },
    right: (layer) => {
      setNumber(layer, 'motion.speed', 2);
      trail(layer, { every: 0.06, lasts: 0.6 });
    },
  },
  {
    name: 'more points of trails than there is room for',
    id: 'points',
    says: /lays about 800 points at once, and has room for 100/,
    wrong: (layer) => {
      setNumber(layer, 'motion.speed', 2);
      trail(layer, { every: 0.06, lasts: 0.6, most: 100 });
    },
    right: (layer) => {
      setNumber(layer, 'motion.speed', 2);
      trail(layer, { every: 0.06, lasts: 0.6, most: 1000 });
    },
  },
  {
    name: 'a tail that pops',
    id: 'tail',
    says: /tail pops: it is 100% wide where it ends/,
    wrong: (layer) => trail(layer, { atTail: 100 }, 'goes too'),
    right: (layer) => trail(layer, { atTail: 100 }, 'stays'),
  },
  {
    name: 'a pop at release',
    id: 'release',
    says: /pops as it is freed: [\d.]+% of what is seen of it goes at once/,
    wrong: (layer, effect) => held(layer, effect, 0),
    right: (layer, effect) => held(layer, effect, 1),
  },
  {
    name: 'meshes that flicker',
    id: 'flicker/inner',
    says: /Outer and Inner are the same solid mesh in the same place/,
    wrong: (_, effect) => crates(effect, 1),
    right: (_, effect) => crates(effect, 1.1),
  },
  {
    name: 'the same name twice',
    id: 'name/other',
    says: /Two layers are called motes/,
    wrong: (layer, effect) => twice(layer, effect, 'motes'),
    right: (layer, effect) => twice(layer, effect, 'Motes'),
  },
  {
    name: 'a cap that is sure to be met',
    id: 'cap',
    says: /would have 400 living at once, and only 100 may/,
    wrong: (layer) => {
      setNumber(layer, 'births.rate', 400);
      setNumber(layer, 'births.cap', 100);
    },
    right: (layer) => {
      setNumber(layer, 'births.rate', 400);
      setNumber(layer, 'births.cap', 400);
    },
  },
  {
    name: 'more than the budget',
    id: 'budget',
    says: /over the project’s budget of 300: most of them, 400, are motes/,
    wrong: (layer) => setNumber(layer, 'births.rate', 400),
    right: (layer) => setNumber(layer, 'births.rate', 200),
    observed: { ...NOTHING_OBSERVED, budget: 300 },
  },
  {
    name: 'a layer that takes long',
    id: 'slow/motes',
    says: /motes takes 12 ms of every step/,
    wrong: (layer) => (layer.name = 'motes'),
    right: (_, effect) => (effect.layers = collectionOf([['quick', effect.layers.byId['motes']!]])),
    observed: { ...NOTHING_OBSERVED, milliseconds: { motes: 12, quick: 2 } },
    mends: false,
  },
  {
    name: 'more lights than shine',
    id: 'lights',
    says: /About 40 lights would shine at once \(motes\); only the 16 strongest do/,
    wrong: (layer) => (layer.drawn = newDrawn('light')),
    right: (layer) => {
      layer.drawn = newDrawn('light');
      setNumber(layer, 'births.rate', 12);
    },
    mends: false,
  },
];

function place(layer: Layer, last: number): void {
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
function held(layer: Layer, effect: Effect, atBirth: number): void {
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
function twice(layer: Layer, effect: Effect, name: string): void {
  effect.layers = collectionOf([
    ['motes', layer],
    ['other', newLayer(name, 9)],
  ]);
}

describe('kinds of findings', () => {
  it.each(KINDS.map((kind) => [kind.name, kind] as const))('%s', (_, kind) => {
    const { id, says, observed, mends } = kind;
    const wrong = effectOf(kind.wrong);
    const found = all(wrong, observed).find((finding) => finding.id.includes(id));
    expect(found?.sentence).toMatch(says);
    expect(found!.where).not.toBe('');
    const right = effectOf(kind.right);
    expect(all(right, observed).filter((finding) => finding.id.includes(id))).toEqual([]);
    if (mends === false) {
      expect(found!.mend).toBeNull();
      return;
    }
    const mended = structuredCopy(wrong);
    found!.mend!.apply(mended);
    expect(all(mended, observed).filter((finding) => finding.id === found!.id)).toEqual([]);
    expect(() => parseEffect(mended)).not.toThrow();
  });

  it('are at least twenty-five, and what is wrong is told before what only looks so', () => {
    expect(new Set(KINDS.map(({ id }) => id)).size).toBeGreaterThanOrEqual(25);
    const effect = effectOf((layer) => {
      setNumber(layer, 'life.turning', 90);
      layer.forces = collectionOf([['f', newForce('attraction', atThing('gone'))]]);
    });
    expect(all(effect).map(({ severity }) => severity)).toEqual(['wrong', 'doubtful']);
  });

  it('a look with a picture or a grain turns to some purpose', () => {
    const effect = effectOf((layer) => setNumber(layer, 'life.turning', 90));
    const { look } = effect.layers.byId['motes']!;
    if (look.kind !== 'own') throw new Error('a look of its own');
    look.steps = collectionOf([
      ...listed(look.steps).map(({ id, item }) => [id, item] as const),
      ['d', newStep('dissolve')],
    ]);
    expect(all(effect)).toEqual([]);
  });
});

describe('flashes a second', () => {
  const series = (perSecond: number, depth: number) =>
    Float64Array.from(
      { length: 120 },
      (_, step) => 0.5 + (depth / 2) * Math.sign(Math.sin((step / 60) * perSecond * 2 * Math.PI + 0.01)),
    );
  it('counts rises of a tenth within any second', () => {
    expect(flashesASecond(series(5, 0.5), 60)).toBe(5);
    expect(flashesASecond(series(2, 0.5), 60)).toBe(2);
    expect(flashesASecond(series(5, 0.08), 60)).toBe(0);
    expect(flashesASecond(new Float64Array(60).fill(0.4), 60)).toBe(0);
  });
});
