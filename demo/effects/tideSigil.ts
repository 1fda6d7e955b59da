import {
  atBone,
  atEffect,
  burst,
  collectionOf,
  namedColour,
  newEffect,
  newLink,
  newRibbon,
  newThing,
  type Effect,
  type Id,
  type Layer,
  type Moment,
  type Source,
  type Vector,
  setWidthAlong,
} from '@jinx/core/document';
import {
  colour,
  darkWater,
  follows,
  force,
  forces,
  gradient,
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
} from './build.ts';

const SEDGE = 'sedge';
const SECONDS = 5;
/** Seconds that the mark lies before it sinks. */
const SINKS = 4.2;
const ON_GROUND: Vector = [0, 0.03, 0];

/** A line that swells and falls like a tide, across the mark. */
const wave = (z: number, reach: number, swell: number): Vector[] =>
  Array.from({ length: 9 }, (_, n): Vector => {
    const x = -reach + (2 * reach * n) / 8;
    return [x, 0, z + swell * Math.sin((n / 8) * 3 * Math.PI)];
  });
/** A spiral that runs in to the middle. */
const spiral: Vector[] = Array.from({ length: 13 }, (_, n): Vector => {
  const [round, radius] = [(n / 12) * 2.6 * Math.PI, 0.8 - 0.057 * n];
  return [radius * Math.cos(round), 0, radius * Math.sin(round)];
});

interface Stroke {
  readonly id: Id;
  readonly name: string;
  readonly source: Source;
  /** Births that write it, and seconds that takes. */
  readonly points: number;
  readonly seconds: number;
  readonly width: number;
}
const path = (points: Vector[]): Source => ({ kind: 'path', place: atEffect(ON_GROUND), points, closed: false });
const STROKES: readonly Stroke[] = [
  {
    id: 'rim',
    name: 'Rim',
    source: { kind: 'ring', place: atEffect(ON_GROUND) },
    points: 90,
    seconds: 0.9,
    width: 0.2,
  },
  { id: 'spring', name: 'Spring', source: path(spiral), points: 44, seconds: 0.55, width: 0.1 },
  { id: 'flood', name: 'Flood', source: path(wave(-0.55, 1.12, 0.15)), points: 36, seconds: 0.4, width: 0.12 },
  { id: 'ebb', name: 'Ebb', source: path(wave(0.55, 1.12, -0.15)), points: 36, seconds: 0.4, width: 0.12 },
];

/** When a stroke begins: as the one before it has been written. */
const afterStroke = (n: number, seconds = 0.04): Moment => ({
  after:
    n === 0 ? { kind: 'border', border: 'start' } : { kind: 'layer', layer: STROKES[n - 1]!.id, event: 'lastBirth' },
  seconds: n === 0 ? 0.25 : seconds,
  measure: null,
});
/** Seconds at which a stroke begins, by the sum of those before it: how long it is to lie. */
const startOf = (n: number): number => STROKES.slice(0, n).reduce((sum, { seconds }) => sum + seconds + 0.04, 0.25);

function written(stroke: Stroke, n: number): Layer {
  const { name, source, points, seconds, width } = stroke;
  const lies = SINKS - startOf(n);
  const made = layer(
    name,
    0x71de00 + n,
    source,
    {
      ...(source.kind === 'ring' ? { 'source.radius': 1.45 } : {}),
      'source.order': 'walking',
      'source.walk': points,
      'births.rate': points / seconds,
      'births.life': lies,
      'life.size': {
        base: width,
        over: [
          [0, 0.25],
          [0.1, 1.25],
          [0.2, 1],
          [0.85, 1],
          [1, 0.2],
        ],
      },
      'life.opacity': { base: 100, over: inAndOut(0.05, 0.82) },
      'life.intensity': {
        base: 1.5,
        over: [
          [0, 2.4],
          [0.12, 1.1],
          [0.7, 0.9],
          [1, 1.4],
        ],
      },
      'appearance.blend': 'mixed',
      'appearance.covers': 55,
    },
    gradient('across', [0, '#06222a'], [0.3, '#3fb6a8'], [0.5, '#f2fff6'], [0.7, '#3fb6a8'], [1, '#06222a']),
    step('drawn', { shape: 'clouds', grains: 7, softness: 70, amount: 45, varied: false, onto: 'colour' }),
  );
  made.births = {
    from: afterStroke(n),
    until: { after: { kind: 'border', border: 'start' }, seconds: startOf(n) + seconds, measure: null },
  };
  made.drawn = newRibbon('strand');
  if (made.drawn.kind === 'strand') {
    setWidthAlong(made.drawn, 60, 100);
    made.drawn.settings.laid.base = { kind: 'fixed', value: 'by the metre' };
    made.drawn.settings.tile.base = { kind: 'fixed', value: 0.6 };
  }
  made.links = collectionOf([['spray', newLink('birth', 'spray', 0x71de40 + n)]]);
  made.links.byId['spray']!.settings.count.base = { kind: 'spread', low: 1, high: 3 };
  return colour(made, [0, named('foam')], [0.2, named('tide')], [0.8, named('tide')], [1, named('deep')]);
}

/** Reeds that come up along a stroke once it is closed, sway, and sink with it. */
function reedsOf(stroke: Stroke, n: number, kit: KitAssets): Layer {
  const { id, name, source, points } = stroke;
  const count = Math.round(points / 3);
  const lies = SINKS - startOf(n) - stroke.seconds;
  const made = meshes(
    layer(`Reeds of the ${name.toLowerCase()}`, 0x71de10 + n, source, {
      ...(source.kind === 'ring' ? { 'source.radius': 1.45 } : {}),
      'source.order': 'walking',
      'source.walk': count,
      'births.rate': count / 0.3,
      'births.life': [lies - 0.35, lies],
      'life.size': {
        base: n === 0 ? [0.5, 0.85] : [0.26, 0.5],
        over: [
          [0, 0],
          [0.18, 1.08],
          [0.26, 1],
          [0.8, 1],
          [1, 0],
        ],
      },
      'life.turning': {
        base: [-22, 22],
        over: [
          [0, 0.4],
          [0.25, 1],
          [0.5, -1],
          [0.75, 1],
          [1, -0.5],
        ],
      },
      'appearance.facing': 'own frame',
      'appearance.blend': 'solid',
      'appearance.lit': 'card',
      'appearance.litShare': 78,
    }),
    kit,
    ['reed'],
    { roughness: 65, shadow: true },
  );
  made.look = { kind: 'own', steps: collectionOf([]) };
  made.births = {
    from: { after: { kind: 'layer', layer: id, event: 'lastBirth' }, seconds: 0, measure: null },
    until: { after: { kind: 'layer', layer: id, event: 'lastBirth' }, seconds: 0.3, measure: null },
  };
  made.settings['life.tilt'].base = { kind: 'spread', low: [-8, -180, -8], high: [14, 180, 8] };
  made.settings['life.axle'].base = { kind: 'fixed', value: [0.2, 1, 0.1] };
  return colour(made, [0, named('foam')], [0.2, hex('#7fa35c')], [0.8, hex('#6f8f4c')], [1, named('deep')]);
}

/** Tide Sigil: a mark writes itself on the ground stroke by stroke; as each closes, reeds grow along it, sway, and sink. */
export function tideSigil(kit: KitAssets): Effect {
  const effect = newEffect('Tide Sigil', 27_719);
  effect.stretches = { opening: SECONDS, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
  effect.palette = collectionOf([
    ['tide', namedColour('Tide', '#5fd0bd')],
    ['foam', namedColour('Foam', '#f0fff8')],
    ['deep', namedColour('Deep', '#14505a')],
  ]);
  effect.stage.things = collectionOf([[SEDGE, { ...newThing('Sedge', kit['sedge']!), clip: 'cast' }]]);

  const spray = layer(
    'Spray',
    0x71de20,
    { kind: 'point', place: atEffect(ON_GROUND) },
    {
      'births.life': [0.35, 0.9],
      'births.cap': 3000,
      'motion.launch': 'axis',
      'motion.axis': [0, 1, 0],
      'motion.opening': 32,
      'motion.speed': [0.5, 1.7],
      'life.size': {
        base: [0.014, 0.036],
        over: [
          [0, 1],
          [1, 0.3],
        ],
      },
      'life.opacity': { base: 100, over: inAndOut(0.1, 0.6) },
      'life.intensity': [1.4, 3],
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.05,
    },
    step('drawn', { shape: 'soft dot', softness: 45 }),
  );
  colour(spray, [0, named('foam')], [1, named('tide')]);
  forces(spray, force('gravity', null, { strength: 4.2 }), force('drag', null, { strength: 1.2 }));

  const glow = (stroke: Stroke, n: number): Layer => {
    const made = follows(
      stroke.id,
      `Glow of the ${stroke.name.toLowerCase()}`,
      0x71de30 + n,
      {
        'life.size': stroke.width * 3.4,
        'life.opacity': {
          base: 20,
          over: [
            [0, 0],
            [0.06, 2],
            [0.2, 1],
            [0.8, 1],
            [1, 0],
          ],
        },
        'appearance.facing': 'ground',
      },
      step('drawn', { shape: 'soft dot', softness: 90 }),
    );
    return colour(made, [0, named('tide')]);
  };

  const well = layer(
    'Well',
    0x71de21,
    { kind: 'point', place: atEffect([0, 0.04, 0]) },
    {
      'births.standing': 1,
      'motion.ride': 100,
      'life.size': {
        base: 1.5,
        over: [
          [0, 0],
          [0.4, 0.2],
          [0.5, 1],
          [0.84, 0.9],
          [1, 0.3],
        ],
        reads: 'effectTime',
      },
      'life.opacity': {
        base: 42,
        over: [
          [0, 0],
          [0.4, 0],
          [0.5, 1],
          [0.8, 0.8],
          [0.95, 0],
          [1, 0],
        ],
        reads: 'effectTime',
      },
      'life.intensity': 0.9,
      'life.turning': 38,
      'appearance.facing': 'ground',
    },
    step('warp', { strength: 14, grains: 3, change: 0.5 }),
    step('drawn', { shape: 'flare', width: 22, softness: 70 }),
  );
  colour(well, [0, named('foam')]);

  const drops = layer(
    'Drops that rise',
    0x71de22,
    { kind: 'disc', place: atEffect(ON_GROUND) },
    {
      'source.radius': 1,
      'source.region': 'volume',
      'births.life': [0.8, 1.4],
      'motion.launch': 'axis',
      'motion.axis': [0, 1, 0],
      'motion.speed': [0.5, 1.2],
      'life.size': { base: [0.012, 0.03], over: inAndOut(0.3, 0.7) },
      'life.opacity': { base: 95, over: inAndOut(0.2, 0.6) },
      'life.intensity': [1.4, 2.6],
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.05,
    },
    step('drawn', { shape: 'soft dot', softness: 45 }),
  );
  drops.bursts = collectionOf([['rise', { ...burst('opening', startOf(4), 26), times: 9, every: 0.16 }]]);
  colour(drops, [0, named('tide')], [1, named('foam')]);
  forces(
    drops,
    force('curl', null, { strength: 1.2, size: 0.4, change: 0.6 }),
    force('drag', null, { strength: 0.8 }),
  );

  const strokes = Object.fromEntries(STROKES.map((stroke, n) => [stroke.id, written(stroke, n)]));
  const reeds = Object.fromEntries(STROKES.map((stroke, n) => [`reeds${n}`, reedsOf(stroke, n, kit)]));
  const glows = Object.fromEntries(STROKES.map((stroke, n) => [`glow${n}`, glow(stroke, n)]));
  layers(effect, {
    drops,
    spray,
    ...reeds,
    ...strokes,
    well,
    ...glows,
    shimmer: shimmer('Tide light on the water', 0x71de23, atEffect([0, 0, 0]), 5.4, named('tide'), 85),
    water: darkWater('Tide water', 0x71de24, atEffect([0, 0, 0]), 6.2, {}, '#12302f'),
    light: standingLight(
      'Light of the mark',
      0x71de25,
      atEffect([0, 0.5, 0]),
      2,
      [
        [0, 0],
        [0.1, 0.5],
        [0.5, 1],
        [0.56, 1.5],
        [0.8, 0.9],
        [1, 0],
      ],
      named('tide'),
      { reach: 4 },
    ),
    hand: standingLight(
      'Light in the hand',
      0x71de26,
      atBone(SEDGE, 'hand.left', [0, -0.08, 0.04]),
      1.2,
      inAndOut(0.05, 0.6),
      named('tide'),
      { reach: 1.2 },
    ),
  });
  return effect;
}
