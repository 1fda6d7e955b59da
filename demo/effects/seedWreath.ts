import {
  atBone,
  atThing,
  collectionOf,
  curveShaper,
  namedColour,
  newEffect,
  newRibbon,
  newThing,
  type Effect,
  type NumberSetting,
  type Vector,
  settingsByName,
} from '@jinx/core/document';
import {
  colour,
  darkWater,
  follows,
  force,
  forces,
  hex,
  inAndOut,
  layer,
  layers,
  meshes,
  named,
  shimmer,
  standingLight,
  step,
  type KitAssets,
  type Points,
} from './build.ts';

const BOGLING = 'bogling';
const [OPENING, HOLD, CLOSING] = [0.5, 3, 1.8];
const SHEET = OPENING + HOLD + CLOSING;
/** Where the hold ends, as a share of the sheet; a little after it the seeds have lost their hold. */
const LET_GO = (OPENING + HOLD) / SHEET;
const LOST = LET_GO + 0.05;

/** Over the dazed head, leaning to one side. */
const CROWN = atBone(BOGLING, 'head', [0, 0.34, 0.02], [16, 0, -12]);
const AXIS: Vector = [0, 1, 0];

/** What holds until it is let go, and what takes over then. */
const HOLDS: Points = [
  [0, 1],
  [LET_GO, 1],
  [LOST, 0],
  [1, 0],
];
const LETS_GO: Points = [
  [0, 0],
  [LET_GO, 0],
  [LOST, 1],
  [1, 1],
];
/** Seen from the opening until the drifting seeds have gone. */
const SEEN: Points = [
  [0, 0],
  [0.07, 1],
  [LET_GO + 0.1, 1],
  [0.98, 0],
  [1, 0],
];

/** Seed Wreath: reed seeds tumble on a tilted ring over a dazed head; when it ends they lose hold and drift off. */
export function seedWreath(kit: KitAssets): Effect {
  const effect = newEffect('Seed Wreath', 40_913);
  effect.stretches = {
    opening: OPENING,
    hold: { kind: 'continuing', seconds: HOLD },
    closing: CLOSING,
    preRoll: 0,
  };
  effect.palette = collectionOf([
    ['seed', namedColour('Seed', '#d9c48a')],
    ['down', namedColour('Down', '#fff1c9')],
    ['daze', namedColour('Daze', '#ffe27a')],
  ]);
  effect.stage.things = collectionOf([[BOGLING, { ...newThing('Bogling', kit['bogling']!), clip: 'struck' }]]);

  /** Forces that hold a layer on the wreath, and let it drift off when it ends. */
  const wreathed = (
    made: ReturnType<typeof layer>,
    distance: number,
    speed: number,
    [drift, lift]: [number, number],
  ) => {
    const orbit = force('orbit', CROWN, { distance, speed, axis: AXIS });
    const share = settingsByName<NumberSetting>(orbit)['share']!;
    share.shapers = collectionOf([['let', { ...curveShaper(HOLDS), reads: { kind: 'effectTime' } as const }]]);
    const late = (base: number) => ({ base, over: LETS_GO, reads: 'effectTime' as const });
    return forces(
      made,
      orbit,
      force('curl', null, { strength: late(drift), size: 0.5, change: 0.5 }),
      force('gravity', null, { strength: late(lift) }),
      force('drag', null, { strength: late(1.6) }),
    );
  };

  const seeds = meshes(
    layer(
      'Seeds',
      0x5eed01,
      { kind: 'ring', place: CROWN },
      {
        'source.radius': 0.44,
        'source.order': 'walking',
        'source.walk': 11,
        'births.standing': 11,
        'motion.ride': 100,
        'life.size': { base: [0.24, 0.34], over: SEEN, reads: 'effectTime' },
        'life.turning': [-260, 260],
        'appearance.facing': 'own frame',
        'appearance.blend': 'solid',
        'appearance.lit': 'card',
        'life.width': 190,
        'life.height': 100,
      },
    ),
    kit,
    ['reed'],
    { roughness: 60, shadow: false },
  );
  seeds.settings['life.tilt'].base = { kind: 'spread', low: [-180, -180, -180], high: [180, 180, 180] };
  seeds.settings['life.axle'].base = { kind: 'spread', low: [-1, -0.4, -1], high: [1, 1, 1] };
  colour(seeds, [0, named('seed')]);
  wreathed(seeds, 0.44, 1.05, [2.2, 0.75]);

  const down = follows(
    'seeds',
    'Down',
    0x5eed02,
    {
      'life.size': { base: [0.15, 0.22], over: SEEN, reads: 'effectTime' },
      'life.opacity': { base: 20, over: SEEN, reads: 'effectTime' },
      'life.intensity': 1,
      'life.angle': [-180, 180],
      'life.turning': [-60, 60],
      'appearance.blend': 'mixed',
      'appearance.covers': 35,
    },
    step('drawn', { shape: 'flare', width: 6, softness: 85 }),
  );
  colour(down, [0, named('down')]);

  const trail = follows('seeds', 'Way they go', 0x5eed03, {
    'life.size': { base: 0.035, over: SEEN, reads: 'effectTime' },
    'life.opacity': { base: 42, over: SEEN, reads: 'effectTime' },
    'life.intensity': 1.6,
  });
  trail.drawn = newRibbon('trail');
  if (trail.drawn.kind === 'trail') {
    trail.drawn.settings.every.base = { kind: 'fixed', value: 0.02 };
    trail.drawn.settings.lasts.base = { kind: 'fixed', value: 0.34 };
  }
  trail.look = { kind: 'own', steps: collectionOf([['band', step('drawn', { shape: 'band', softness: 90 })]]) };
  colour(trail, [0, named('daze')]);

  const motes = layer(
    'Motes of daze',
    0x5eed04,
    { kind: 'ring', place: CROWN },
    {
      'source.radius': 0.33,
      'source.order': 'walking',
      'source.walk': 7,
      'births.standing': 7,
      'motion.ride': 100,
      'life.size': { base: [0.06, 0.12], over: SEEN, reads: 'effectTime' },
      'life.opacity': { base: [55, 95], over: SEEN, reads: 'effectTime' },
      'life.intensity': [1.6, 2.6],
      'life.angle': [-180, 180],
      'life.turning': [-140, 140],
    },
    step('drawn', { shape: 'flare', width: 14, softness: 45 }),
  );
  colour(motes, [0, named('daze')]);
  wreathed(motes, 0.33, -0.7, [1.5, -0.35]);

  const halo = layer(
    'Ring',
    0x5eed05,
    { kind: 'point', place: CROWN },
    {
      'births.standing': 1,
      'motion.ride': 100,
      'life.size': { base: 1.05, over: inAndOut(0.1, LET_GO), reads: 'effectTime' },
      'life.opacity': { base: 30, over: inAndOut(0.1, LET_GO), reads: 'effectTime' },
      'life.intensity': 1.2,
      'appearance.facing': 'own frame',
    },
    step('warp', { strength: 8, grains: 4, change: 0.6 }),
    step('drawn', { shape: 'ring', width: 20, softness: 90 }),
  );
  halo.settings['life.tilt'].base = { kind: 'fixed', value: [90, 0, 0] };
  colour(halo, [0, named('daze')]);

  const glow = layer(
    'Dazzle',
    0x5eed0a,
    { kind: 'point', place: CROWN },
    {
      'births.standing': 1,
      'motion.ride': 100,
      'life.size': 2.3,
      'life.opacity': { base: 17, over: inAndOut(0.1, LET_GO), reads: 'effectTime' },
    },
    step('drawn', { shape: 'soft dot', softness: 80 }),
  );
  colour(glow, [0, named('daze')]);

  const shade = layer(
    'Shade under it',
    0x5eed06,
    { kind: 'point', place: CROWN },
    {
      'births.standing': 1,
      'motion.ride': 100,
      'life.size': 1.25,
      'life.opacity': { base: 46, over: inAndOut(0.12, LET_GO), reads: 'effectTime' },
      'appearance.blend': 'multiply',
      'appearance.nudge': -0.4,
    },
    step('drawn', { shape: 'soft dot', softness: 80 }),
  );
  colour(shade, [0, hex('#3c3a2c')]);

  layers(effect, {
    motes,
    down,
    trail,
    seeds,
    halo,
    glow,
    shade,
    shimmer: shimmer('Wreath light on the water', 0x5eed09, atThing(BOGLING), 5.6, named('daze'), 58),
    water: darkWater('Still water', 0x5eed08, atThing(BOGLING), 5.6, {}, '#232a22'),
    light: standingLight('Light of the wreath', 0x5eed07, CROWN, 2.6, inAndOut(0.1, LET_GO), named('daze'), {
      reach: 3.2,
    }),
  });
  return effect;
}
