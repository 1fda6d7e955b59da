import {
  atThing,
  CHANNEL_SETTING,
  burst,
  collectionOf,
  curveShaper,
  defaultSetting,
  FORCE_KINDS,
  inWorld,
  listed,
  newDrawn,
  newEffect,
  newForce,
  newFront,
  newLayer,
  newLink,
  newRibbon,
  newStep,
  newSurface,
  newThing,
  setNumber,
  STEP_KINDS,
  stepSettings,
  stepTable,
  SURFACE_KINDS,
  type Effect,
  type Force,
  type ForceKind,
  type Layer,
  type NumberSetting,
  type Reads,
  type Source,
  type Step,
  type Surface,
  settingsByName,
} from '../document/index.ts';
import type { Rig } from '../geometry/index.ts';
import type { Inputs } from '../simulation/index.ts';
import { Dice } from './dice.ts';
import { bendingTube, closedBox, withTallerShape } from './rigs.ts';

export const RANDOM_TUBE = 'a'.repeat(64);
export const RANDOM_BOX = 'b'.repeat(64);

/** What random effects stand on and meet, by asset. */
export const randomRigs = (): Map<string, Rig> =>
  new Map([
    [RANDOM_TUBE, bendingTube()],
    [RANDOM_BOX, withTallerShape(closedBox(0.6), 1.8)],
  ]);

const SHAPES = ['point', 'line', 'ring', 'disc', 'box', 'sphere', 'cylinder', 'cone'] as const;
const SOURCES = [...SHAPES, 'path', 'surface', 'volume', 'vertices', 'bones', 'particles', 'hits'] as const;
const LAUNCHES = ['outward', 'normal', 'tangent', 'within', 'axis', 'toward', 'round', 'any'] as const;
const EVENTS = ['birth', 'death', 'hit', 'release', 'along'] as const;
const ACTS = ['bounce', 'slide', 'stick', 'die', 'keep'] as const;
const DRAWN = ['sprite', 'trail', 'mesh', 'strand', 'light', 'blade', 'haze', 'beam', 'body'] as const;
const RIBBONS: readonly string[] = ['trail', 'strand', 'blade', 'beam'];
const TOWARD = ['point', 'line', 'skin', 'own spot'] as const;
const FRONTS = ['sphere', 'box', 'plane'] as const;
/** Seeds below this are pinned (pins/pin.ts): a kind of force that comes later is in random effects from here on. */
export const FIRST_NEW_SEED = 200;
const PINNED_FORCES: readonly ForceKind[] = [
  'gravity',
  'wind',
  'drag',
  'attraction',
  'vortex',
  'orbit',
  'curl',
  'jitter',
  'push',
  'limit',
  'velocity',
  'displacement',
];
const forcesInTurn = ({ seed }: Dice) => (seed < FIRST_NEW_SEED ? PINNED_FORCES : FORCE_KINDS);

function sourceOf(kind: (typeof SOURCES)[number], dice: Dice, layer: Layer, before: string | null): Source {
  const set = (name: 'source.region', value: string) => (layer.settings[name].base = { kind: 'fixed', value });
  const points: [number, number, number][] = [
    [-0.5, 0, 0],
    [0, 0.4, 0.2],
    [0.6, 0, dice.number(-0.3, 0.3)],
  ];
  switch (kind) {
    case 'path':
      return { kind, place: dice.place(), points, closed: dice.comes(0.5) };
    case 'surface':
    case 'volume':
    case 'vertices':
      set('source.region', kind);
      return { kind: 'mesh', thing: kind === 'volume' ? 'box' : 'tube', bones: dice.comes(0.3) ? ['high'] : [] };
    case 'bones':
      return { kind, thing: 'tube', bones: [] };
    case 'particles':
      if (before === null) return { kind: 'sphere', place: dice.place() };
      setNumber(layer, 'source.ring', dice.comes(0.5) ? 0.3 : 0);
      setNumber(layer, 'source.ragged', 0.05);
      return { kind, layer: before };
    case 'hits': {
      setNumber(layer, 'source.perHit', 60);
      const hit = (at: number, strength: number) => ({
        stretch: 'opening' as const,
        at,
        place: dice.place(),
        strength,
        muted: false,
      });
      return {
        kind,
        hits: collectionOf([
          ['a', hit(0.05, 100)],
          ['b', hit(0.3, 150)],
        ]),
      };
    }
    default:
      if (kind === 'box' || kind === 'sphere') set('source.region', dice.comes(0.5) ? 'volume' : 'surface');
      return { kind, place: dice.place() };
  }
}

/** What shapers may read here. */
const READS: readonly Reads[] = [
  { kind: 'age' },
  { kind: 'speed' },
  { kind: 'distance' },
  { kind: 'channel', channel: 'heat' },
  { kind: 'stretchTime' },
];

const heatOf = (dice: Dice): NumberSetting => ({
  ...defaultSetting(CHANNEL_SETTING),
  base: { kind: 'spread', low: dice.number(0, 0.5), high: 1 },
  shapers: collectionOf([
    [
      'cools',
      curveShaper([
        [0, 1],
        [1, dice.number(0, 1)],
      ]),
    ],
  ]),
});

function forceOf(kind: ForceKind, dice: Dice): Force {
  const force = newForce(kind, dice.place());
  const settings = settingsByName<NumberSetting>(force);
  const strength = settings['strength'];
  if (strength && dice.comes(0.4)) strength.base = { kind: 'spread', low: 0.5, high: 2 };
  if (strength && dice.comes(0.4)) {
    const shaper = curveShaper([
      [0, dice.number(0, 1)],
      [1, dice.number(0, 2)],
    ]);
    strength.shapers = collectionOf([['over', { ...shaper, reads: dice.turn(READS, 1) }]]);
  }
  if (settings['reach'] && dice.comes(0.5)) settings['reach'].base = { kind: 'fixed', value: dice.number(0.5, 3) };
  if (force.kind === 'attraction') {
    force.settings.toward.base = { kind: 'fixed', value: dice.turn(TOWARD, 0) };
    if (dice.comes(0.7)) force.place = atThing('tube');
  }
  if (settings['share'] && dice.comes(0.3)) settings['share'].base = { kind: 'fixed', value: 60 };
  return force;
}

const BLOCK = 'block';
/** A mesh that stands, grows and goes over into its other shape, to be met. */
function blockOf(dice: Dice): Layer {
  const block = newLayer('Block', 900);
  block.source = { kind: 'point', place: dice.place() };
  block.drawn = {
    ...newDrawn('mesh'),
    meshes: collectionOf([['box', { asset: RANDOM_BOX, name: 'box', chance: 1 }]]),
  };
  setNumber(block, 'births.rate', 0);
  setNumber(block, 'births.standing', 1);
  setNumber(block, 'motion.speed', 0);
  setNumber(block, 'motion.ride', 100);
  setNumber(block, 'life.size', [0.5, 1.5]);
  setNumber(block, 'life.turning', dice.turn([0, 40], 0));
  const over = curveShaper([
    [0, 0],
    [1, dice.number(0.4, 1.2)],
  ]);
  if (block.drawn.kind === 'mesh') {
    block.drawn.settings.otherShape.base = { kind: 'fixed', value: 100 };
    block.drawn.settings.otherShape.shapers = collectionOf([['over', { ...over, reads: { kind: 'effectTime' } }]]);
  }
  block.settings['appearance.facing'].base = { kind: 'fixed', value: dice.turn(['ground', 'own frame'], 0) };
  block.settings['life.tilt'].base = { kind: 'fixed', value: [10, 20, dice.number(-90, 90)] };
  return block;
}

function surfaceOf(dice: Dice, n: number): Surface {
  const kind = dice.turn(SURFACE_KINDS, n);
  const place =
    kind === 'ground' ? inWorld() : inWorld([dice.number(-1, 1), dice.number(0, 1.5), dice.number(-1, 1)]);
  const surface =
    kind === 'thing'
      ? newSurface('thing', { thing: 'tube' })
      : kind === 'mesh'
        ? newSurface('mesh', { place, asset: RANDOM_BOX, name: 'box' })
        : kind === 'layer'
          ? newSurface('layer', { layer: BLOCK })
          : newSurface(kind, { place });
  surface.settings.act.base = { kind: 'fixed', value: dice.turn(ACTS, n, 2) };
  return surface;
}

/** A look of two steps, with a number drawn for each particle and another shaped by whatever it may be. */
function lookOf(dice: Dice): Layer['look'] {
  // A stride that shares no divisor with their number comes to each of them.
  const stride = dice.seed < FIRST_NEW_SEED ? 2 : 5;
  const kinds = [dice.turn(STEP_KINDS, 0), dice.turn(STEP_KINDS, 1, stride)];
  const steps = kinds.map((kind, n): [string, Step] => {
    const step = newStep(kind);
    const numbers = Object.entries(stepTable(kind)).flatMap(([name, declaration]) =>
      declaration.value === 'number' ? [{ name, low: Math.max(1, declaration.least) }] : [],
    );
    numbers.slice(0, 2).forEach(({ name, low }, k) => {
      const setting = stepSettings(step)[name] as NumberSetting;
      if (k === 0) setting.base = { kind: 'spread', low, high: low + 1 };
      else
        setting.shapers = collectionOf([
          [
            'by',
            {
              ...curveShaper([
                [0, 0.5],
                [1, 1.5],
              ]),
              reads: dice.turn(READS, n + k),
            },
          ],
        ]);
    });
    return [`step${n}`, step];
  });
  return { kind: 'own', steps: collectionOf(steps) };
}

function layerOf(effect: Effect, dice: Dice, n: number, ids: readonly string[]): Layer {
  const layer = newLayer(`Layer ${n}`, 1000 + n * 17);
  const before = n > 0 ? ids[n - 1]! : null;
  layer.source = sourceOf(dice.turn(SOURCES, n * 4), dice, layer, before);
  setNumber(layer, 'births.rate', dice.number(100, 300));
  setNumber(layer, 'births.life', [0.5, dice.number(0.8, 2)]);
  setNumber(layer, 'births.cap', 500);
  if (dice.comes(0.4)) layer.bursts = collectionOf([['b', { ...burst('opening', 0.1, 40), times: 3, every: 0.2 }]]);
  if (dice.comes(0.3)) setNumber(layer, 'births.standing', 6);
  if (dice.comes(0.3)) setNumber(layer, 'births.perMetre', 30);
  setNumber(layer, 'motion.speed', [0.1, dice.number(0.4, 2.5)]);
  setNumber(layer, 'motion.opening', dice.number(0, 40));
  setNumber(layer, 'motion.angle', dice.number(-90, 90));
  setNumber(layer, 'motion.inherit', dice.comes(0.4) ? 50 : 0);
  setNumber(layer, 'motion.ride', dice.turn([0, 50, 100], n));
  layer.settings['motion.launch'].base = { kind: 'fixed', value: dice.turn(LAUNCHES, n) };
  layer.settings['source.order'].base = { kind: 'fixed', value: dice.turn(['random', 'even', 'walking'], n) };
  layer.aim = dice.place();
  const forces = Array.from({ length: 3 }, (_, k) => forceOf(dice.turn(forcesInTurn(dice), n * 3 + k, 3), dice));
  layer.forces = collectionOf(forces.map((force, k) => [`f${k}`, force]));
  if (dice.comes(0.7)) layer.channels = collectionOf([['heat', heatOf(dice)]]);
  setNumber(layer, 'life.turning', [-1, 1]);
  layer.settings['life.turns'].base = { kind: 'fixed', value: dice.turn(['degrees a second', 'turns a life'], n) };
  const shaper = curveShaper([
    [0, 0.5],
    [1, dice.number(0.6, 1.5)],
  ]);
  layer.settings[dice.comes(0.5) ? 'life.size' : 'life.intensity'].shapers = collectionOf([
    ['by', { ...shaper, reads: dice.turn(READS, n) }],
  ]);
  const kind = dice.turn(DRAWN, n);
  layer.look = lookOf(dice);
  if (RIBBONS.includes(kind)) layer.drawn = newRibbon(kind as 'trail', dice.place(), dice.place());
  else if (kind !== 'sprite') layer.drawn = newDrawn(kind as 'mesh', 'tube');
  if (layer.drawn.kind === 'trail') layer.drawn.settings.most.base = { kind: 'fixed', value: 3000 };
  if (n < ids.length - 1) {
    const link = newLink(dice.turn(EVENTS, n), ids[n + 1]!, 50 + n);
    link.settings.count.base = { kind: 'fixed', value: 2 };
    link.settings.delay.base = { kind: 'spread', low: 0, high: 0.2 };
    link.settings.velocity.base = { kind: 'fixed', value: 40 };
    link.settings.colour.base = { kind: 'fixed', value: dice.comes(0.5) ? 50 : 0 };
    link.settings.size.base = { kind: 'fixed', value: dice.comes(0.5) ? 50 : 0 };
    link.settings.channels.base = { kind: 'fixed', value: dice.comes(0.5) ? 70 : 0 };
    layer.links = collectionOf([['l', link]]);
    // Only who is held is ever freed.
    if (link.on === 'release' || dice.comes(0.15)) {
      const front = newFront('Front', dice.turn(FRONTS, n), dice.place());
      effect.fronts = collectionOf([...Object.entries(effect.fronts.byId), [`front${n}`, front]]);
      layer.front = `front${n}`;
    }
  }
  return layer;
}

/** What came after seeds were pinned: births on a drawn mesh, fronts that free otherwise, rough surfaces. */
function addNewKinds(effect: Effect, dice: Dice): void {
  const { seed } = dice;
  listed(effect.fronts).forEach(({ item }, n) => {
    item.settings.frees.base = { kind: 'fixed', value: dice.turn(['within', 'beyond', 'band'], n) };
  });
  for (const { item } of listed(effect.surfaces))
    item.settings.roughness.base = { kind: 'spread', low: 0, high: dice.number(10, 100) };
  if (seed % 2 === 0) return;
  if (!effect.layers.byId[BLOCK])
    effect.layers = collectionOf([...Object.entries(effect.layers.byId), [BLOCK, blockOf(dice)]]);
  effect.layers.byId['layer0']!.source = { kind: 'drawn', layer: BLOCK };
}

/** A valid effect of two to four layers, and what happens to it from outside; the same for the same seed. */
export function randomEffect(seed: number): { effect: Effect; inputs: Inputs } {
  const dice = new Dice(seed);
  const effect = newEffect(`Random ${seed}`, seed * 7 + 1);
  effect.stretches = {
    opening: 0.6,
    hold: dice.turn([{ kind: 'continuing', seconds: 0.5 }, { kind: 'seamless', seconds: 0.4 }, { kind: 'none' }], 0),
    closing: 0.5,
    preRoll: dice.comes(0.3) ? 0.3 : 0,
  };
  const tube = { ...newThing('Tube', RANDOM_TUBE), clip: 'sway', path: { kind: 'circle' as const, radius: 1 } };
  effect.stage.things = collectionOf([
    ['tube', tube],
    ['box', { ...newThing('Box', RANDOM_BOX), at: [0.4, 0.6, 0.3] as [number, number, number] }],
  ]);
  if (dice.comes(0.3)) effect.quality.tiers.high.births = 60;
  if (dice.comes(0.4)) effect.stage.carrier = { kind: 'circle', radius: 0.8, speed: 1.5 };
  effect.channels = collectionOf([['heat', { name: 'heat' }]]);
  const ids = Array.from({ length: 2 + (seed % 3) }, (_, n) => `layer${n}`);
  effect.layers = collectionOf(ids.map((id, n) => [id, layerOf(effect, dice, n, ids)]));
  if (dice.comes(0.4)) {
    effect.groups = collectionOf([
      [
        'g',
        { name: 'Group', parent: null, translation: [0.2, 0, 0], rotation: [0, 40, 10], scale: 0.7, linked: null },
      ],
    ]);
    effect.layers.byId['layer1']!.parent = 'g';
  }
  effect.surfaces = collectionOf([0, 1].map((n) => [`s${n}`, surfaceOf(dice, n)]));
  if (listed(effect.surfaces).some(({ item }) => item.kind === 'layer'))
    effect.layers = collectionOf([...Object.entries(effect.layers.byId), [BLOCK, blockOf(dice)]]);
  if (dice.comes(0.3))
    effect.forces = collectionOf([
      ['shared', { force: forceOf('wind', dice), layers: dice.comes(0.5) ? [] : ['layer0'] }],
    ]);
  if (seed >= FIRST_NEW_SEED) addNewKinds(effect, dice);
  const strikes = dice.comes(0.4)
    ? [{ step: 20, at: [0.1, 1, 0.2] as const, normal: [0, 1, 0] as const, strength: 1 }]
    : [];
  const letGoStep = 40 + (seed % 30);
  return { effect, inputs: dice.comes(0.5) ? { strikes, letGoStep } : { strikes } };
}
