import { emptyCollection } from '../../settings/index.ts';
import { copyOf, fill, fixed, itemsOf, loose, type Literals, type Loose } from './loose.ts';

/** Settings of a layer, as schema 2 has them by default. */
const LAYER = {
  'source.radius': 0.5,
  'source.length': 1,
  'source.size': [1, 1, 1],
  'source.thickness': 0,
  'source.arc': 360,
  'source.rise': 180,
  'source.angle': 25,
  'source.stretch': [1, 1, 1],
  'source.ring': 0,
  'source.ragged': 0,
  'source.rags': 0.15,
  'source.stir': 1,
  'source.perHit': 1,
  'source.region': 'surface',
  'source.depth': 100,
  'source.order': 'random',
  'source.walk': 24,
  'source.along': 'joints',
  'source.ground': false,
  'source.below': 0,
  'births.rate': 0,
  'births.perMetre': 0,
  'births.standing': 0,
  'births.perArea': 0,
  'births.life': 1,
  'births.cap': 10000,
  'motion.launch': 'outward',
  'motion.axis': [0, 1, 0],
  'motion.angle': 0,
  'motion.speed': 0,
  'motion.velocity': [0, 0, 0],
  'motion.opening': 0,
  'motion.inherit': 0,
  'motion.ride': 0,
  'release.heldSize': 100,
  'release.heldOpacity': 100,
  'life.size': 0.05,
  'life.opacity': 100,
  'life.colour': { hex: '#ffffff' },
  'life.intensity': 1,
  'life.angle': 0,
  'life.turning': 0,
  'appearance.facing': 'camera',
  'appearance.blend': 'additive',
};

/** Of a link. */
const LINK = {
  count: 5,
  chance: 100,
  delay: 0,
  every: 0.1,
  times: 0,
  once: false,
  velocity: 0,
  colour: 0,
  size: 0,
};

/** Of the forces that schema 1 had. */
const FORCES: Readonly<Record<string, Literals>> = {
  gravity: {
    strength: 9.81,
    reach: 0,
    falloff: 'soft',
    share: 100,
    threshold: 0,
  },
  drag: {
    strength: 1,
    air: 0,
    reach: 0,
    falloff: 'soft',
    share: 100,
  },
  attraction: {
    strength: 4,
    toward: 'point',
    length: 2,
    axis: [0, 1, 0],
    reach: 0,
    falloff: 'soft',
    share: 100,
    threshold: 0,
  },
  vortex: {
    strength: 4,
    pull: 0,
    lift: 0,
    axis: [0, 1, 0],
    reach: 0,
    falloff: 'soft',
    share: 100,
    threshold: 0,
  },
  curl: {
    strength: 2,
    size: 0.5,
    change: 0.5,
    drift: [0, 0, 0],
    reach: 0,
    falloff: 'soft',
    share: 100,
    threshold: 0,
  },
};

const FIGURE = 'figure';

/** Schema 1 knew one figure; places hung on it or on its bones, without turns or keys. */
function hungOn(place: Loose): Loose {
  const { kind, bone, offset } = place;
  const hung = { offset, turn: [0, 0, 0], keys: emptyCollection() };
  if (kind === 'figure') return { kind: 'thing', thing: FIGURE, ...hung };
  if (kind === 'bone') return { kind: 'bone', thing: FIGURE, bone, ...hung };
  return { kind: 'effect', ...hung };
}

/** Schema 1 moved a source from its place by a setting, and said how deep a ring or sphere was filled by another. */
function moveSource(layer: Loose): void {
  const source = loose(layer['source']);
  const settings = loose(layer['settings']);
  const base = (name: string) => loose(loose(settings[name])['base'])['value'];
  const offset = (base('source.offset') ?? [0, 0, 0]) as number[];
  delete settings['source.offset'];
  const depth = base('source.depth') as number | undefined;
  if (source['kind'] === 'surface') layer['source'] = { kind: 'mesh', thing: FIGURE, bones: source['bones'] };
  else if (source['kind'] === 'bone')
    layer['source'] = { kind: 'point', place: hungOn({ kind: 'bone', bone: source['bone'], offset }) };
  else {
    const place = loose(source['place']);
    const at = (place['offset'] as number[]).map((x, axis) => x + offset[axis]!);
    const kind = source['kind'] === 'ring' && depth! > 0 ? 'disc' : source['kind'];
    layer['source'] = { kind, place: hungOn({ ...place, offset: at }) };
  }
  settings['source.region'] = fixed(depth! > 0 ? 'volume' : 'surface');
}

/**
 * Schema 2: several things on the stage, places that turn and have keys, more sources; more kinds of force, each with
 * reach, falloff and share; forces of the effect's own.
 */
export function toSchema2(document: Loose): Loose {
  const result = copyOf({
    ...document,
    schema: 2,
    forces: emptyCollection(),
    surfaces: emptyCollection(),
    fronts: emptyCollection(),
  }) as Loose;
  Object.assign(loose(result['stretches']), { preRoll: 0 });
  const stage = loose(result['stage']);
  const { figure, ...rest } = stage;
  const thing = figure && {
    ...loose(figure),
    name: 'Figure',
    from: 0,
    at: [0, 0, 0],
    facing: 0,
    scale: 1,
  };
  result['stage'] = {
    ...rest,
    things: thing ? { order: [FIGURE], byId: { [FIGURE]: thing } } : emptyCollection(),
    density: { share: 100, keepsArea: true },
  };
  for (const layer of itemsOf(result['layers'])) {
    moveSource(layer);
    layer['front'] = null;
    delete layer['kind'];
    layer['drawn'] = { kind: 'sprite' };
    layer['aim'] = hungOn({ kind: 'effect', offset: [0, 1, 0] });
    layer['births'] = {
      from: { after: { kind: 'border', border: 'start' }, seconds: 0, measure: null },
      until: null,
    };
    for (const burst of itemsOf(layer['bursts'])) Object.assign(burst, { most: burst['count'], times: 1, every: 1 });
    fill(layer, LAYER);
    for (const link of itemsOf(layer['links'])) fill(link, LINK);
    for (const force of itemsOf(layer['forces'])) {
      force['place'] = hungOn(loose(force['place']));
      fill(force, FORCES[force['kind'] as string]);
    }
  }
  return result;
}
