import {
  atBone,
  atBorder,
  atEffect,
  newHit,
  atThing,
  burst,
  collectionOf,
  curveShaper,
  newDrawn,
  newForce,
  setNumber,
  type Effect,
  type Layer,
} from '../document/index.ts';
import { bendingTube } from './rigs.ts';
import type { Observed } from '../checks/findings.ts';
import {
  blunt,
  withForce,
  oneShot,
  asBursts,
  standing,
  trail,
  child,
  keyAfterBirth,
  crates,
  place,
  held,
  twice,
} from './faults.ts';

/** Nothing that a run would tell. */
export const NOTHING_OBSERVED: Observed = { refused: {}, isBudgetFull: false };

/** A kind of finding: how an effect comes to have it, and how not. */
export interface Kind {
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

export const KINDS: readonly Kind[] = [
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
      const made = newHit('hold', 9, atEffect());
      layer.source = {
        kind: 'hits',
        hits: collectionOf([
          ['g', { ...made, at: 0 }],
          ['h', made],
        ]),
      };
      setNumber(layer, 'births.life', 4);
    },
    right: (layer) => {
      const made = newHit('hold', 2, atEffect());
      layer.source = {
        kind: 'hits',
        hits: collectionOf([
          ['g', { ...made, at: 0 }],
          ['h', made],
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
    says: /covers, for its blending is not normal to additive/,
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
    wrong: (layer) => blunt(layer, 'goes too'),
    right: (layer) => blunt(layer, 'stays'),
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
