import { DocumentError } from './errors.ts';
import { emptyCollection } from './collection.ts';
import {
  DRAWN_SETTINGS,
  FORCE_SETTINGS,
  LAYER_SETTINGS,
  LINK_SETTINGS,
  RIBBON_SETTINGS,
  type Declaration,
} from './declarations/index.ts';
import { SCHEMA } from './effect.ts';
import { drawnLook } from './look.ts';
import { newAir, newLens, structuredCopy } from './make.ts';
import { defaultSetting } from './settingSchema.ts';

type Loose = Record<string, unknown>;

const loose = (value: unknown): Loose => (typeof value === 'object' && value !== null ? (value as Loose) : {});
const itemsOf = (collection: unknown): Loose[] => Object.values(loose(loose(collection)['byId'])).map(loose);

/** Gives settings that came later what they are by default. */
function fill(holder: Loose, table: Record<string, Declaration> | undefined): void {
  if (!table) return;
  const settings = loose(holder['settings']);
  for (const [name, declaration] of Object.entries(table)) settings[name] ??= defaultSetting(declaration);
  holder['settings'] = settings;
}

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
  settings['source.region'] = {
    base: { kind: 'fixed', value: depth! > 0 ? 'volume' : 'surface' },
    shapers: emptyCollection(),
    muted: false,
  };
}

/**
 * Schema 2: several things on the stage, places that turn and have keys, more sources; more kinds of force, each with
 * reach, falloff and share; forces of the effect's own.
 */
function stageOfThings(document: Loose): Loose {
  const result = structuredCopy({
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
    fill(layer, LAYER_SETTINGS);
    for (const link of itemsOf(layer['links'])) fill(link, LINK_SETTINGS);
    for (const force of itemsOf(layer['forces'])) {
      force['place'] = hungOn(loose(force['place']));
      fill(force, FORCE_SETTINGS[force['kind'] as 'gravity']);
    }
  }
  return result;
}

/** Schema 3: channels, turns over a life, sprites along their motion. */
function withChannels(document: Loose): Loose {
  const result = structuredCopy({ ...document, schema: 3, channels: emptyCollection() }) as Loose;
  for (const layer of itemsOf(result['layers'])) {
    layer['channels'] = emptyCollection();
    fill(layer, LAYER_SETTINGS);
    for (const link of itemsOf(layer['links'])) fill(link, LINK_SETTINGS);
  }
  return result;
}

/** Schema 4: looks of ordered steps in place of one drawn shape; a lens and air. */
function withLooks(document: Loose): Loose {
  const result = structuredCopy({ ...document, schema: 4, looks: emptyCollection() }) as Loose;
  const stage = loose(result['stage']);
  result['stage'] = { ...stage, lens: newLens(), air: newAir() };
  for (const layer of itemsOf(result['layers'])) {
    const settings = loose(layer['settings']);
    const shape = loose(loose(settings['appearance.shape'])['base'])['value'];
    delete settings['appearance.shape'];
    const isRibbon = loose(layer['drawn'])['kind'] !== 'sprite';
    // Ribbons were soft toward both edges, whatever their shape.
    layer['look'] = drawnLook(isRibbon ? 'band' : typeof shape === 'string' ? shape : 'soft dot');
    layer['inside'] = null;
    fill(layer, LAYER_SETTINGS);
    const drawn = loose(layer['drawn']);
    if (drawn['kind'] !== 'sprite') fill(drawn, RIBBON_SETTINGS[drawn['kind'] as 'trail']);
  }
  return result;
}

/** Schema 5: surroundings that shining things mirror; meshes with another shape. */
function withSurroundings(document: Loose): Loose {
  const result = structuredCopy({ ...document, schema: 5 }) as Loose;
  const stage = loose(result['stage']);
  stage['air'] = { ...newAir(), ...loose(stage['air']) };
  for (const layer of itemsOf(result['layers'])) {
    const drawn = loose(layer['drawn']);
    if (drawn['kind'] === 'mesh') fill(drawn, DRAWN_SETTINGS.mesh);
  }
  return result;
}

/** Schema 6: forces felt from one spot have a softness, which was the same for all; dials that switch, hues that are turned; cameras that are kept. */
function withSoftness(document: Loose): Loose {
  const result = structuredCopy({ ...document, schema: 6 }) as Loose;
  const forces = [
    ...itemsOf(result['forces']).map(({ force }) => loose(force)),
    ...itemsOf(result['layers']).flatMap(({ forces: own }) => itemsOf(own)),
  ];
  for (const force of forces) fill(force, FORCE_SETTINGS[force['kind'] as 'gravity']);
  for (const layer of itemsOf(result['layers'])) layer['seenBy'] = null;
  for (const dial of itemsOf(result['dials'])) dial['kind'] = 'number';
  for (const entry of itemsOf(result['palette'])) {
    entry['isDial'] = false;
    const colour = loose(entry['colour']);
    if (colour['kind'] === 'derived') colour['turned'] = 0;
  }
  loose(result['stage'])['cameras'] = emptyCollection();
  return result;
}

/** Schema 7: groups that are other effects; signals, for which bursts may wait; dials of places, directions, pictures, meshes. */
function withSignals(document: Loose): Loose {
  const result = structuredCopy({ ...document, schema: 7, signals: emptyCollection() }) as Loose;
  for (const group of itemsOf(result['groups'])) group['linked'] = null;
  for (const layer of itemsOf(result['layers'])) for (const burst of itemsOf(layer['bursts'])) burst['signal'] = null;
  return result;
}

/** Each step takes a document of the schema before it. Schema 0 was the draft with lengths in `timing`. */
const STEPS: readonly ((document: Loose) => Loose)[] = [
  (document) => {
    const { timing, ...rest } = document;
    const { open = 0, hold = 0, close = 0 } = (timing ?? {}) as { open?: number; hold?: number; close?: number };
    return {
      ...rest,
      schema: 1,
      stretches: {
        opening: open,
        hold: hold > 0 ? { kind: 'continuing', seconds: hold } : { kind: 'none' },
        closing: close,
      },
    };
  },
  (document) => stageOfThings(document),
  withChannels,
  withLooks,
  withSurroundings,
  withSoftness,
  withSignals,
];

/**
 * Brings a document of any known schema up to the present one. The result is not yet checked.
 * @throws DocumentError when the schema number is missing, or newer than this version of Jinx.
 */
export function migrated(document: unknown): unknown {
  if (typeof document !== 'object' || document === null || Array.isArray(document))
    throw new DocumentError('this is not an effect', '', 'document.none');
  let current = document as Loose;
  const from = current['schema'];
  if (typeof from !== 'number' || !Number.isInteger(from) || from < 0)
    throw new DocumentError('an effect starts with its schema number', 'schema', 'document.schema');
  if (from > SCHEMA)
    throw new DocumentError(
      `this effect was made by a newer Jinx (schema ${from}, known up to ${SCHEMA}): update Jinx to open it`,
      'schema',
      'document.newer',
    );
  for (let step = from; step < SCHEMA; step++) current = STEPS[step]!(current);
  return current;
}
