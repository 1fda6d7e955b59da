import {
  DRAWN_SETTINGS,
  FORCE_SETTINGS,
  FORCES,
  FRONT_SETTINGS,
  LAYER_SETTINGS,
  LINK_SETTINGS,
  RIBBON_SETTINGS,
  STEP_NAMES,
  STEP_SETTINGS,
  SURFACE_SETTINGS,
  type Declaration,
  type ForceKind,
  type StepKind,
} from '@jinx/core/document';
import { SURFACE_NAMES } from '../bench/chapters/surfaceWords';

type Table = Readonly<Record<string, Declaration>>;
/** Settings that stand together: of a chapter of layers, or of a kind of part. */
export interface SettingsTable {
  readonly id: string;
  readonly title: string;
  /** The declarations that they are from; those of layers stand under several chapters. */
  readonly table: Table;
  readonly settings: readonly (readonly [name: string, declaration: Declaration])[];
}

const CHAPTERS: readonly (readonly [Declaration['chapter'], string])[] = [
  ['source', 'Source'],
  ['births', 'Births'],
  ['motion', 'Motion'],
  ['life', 'Life'],
  ['appearance', 'Appearance'],
  ['links', 'Links'],
];
const whole = (id: string, title: string, table: Table): SettingsTable => ({
  ...{ id, title, table },
  settings: Object.entries(table),
});
const kinds = <K extends string>(of: string, tables: Readonly<Record<K, object>>, titleOf: (kind: K) => string) =>
  (Object.entries(tables) as [K, Table][]).map(([kind, table]) => whole(`${of}.${kind}`, titleOf(kind), table));
/** Settings of layers of some chapters. */
const ofLayers = (id: string, title: string, isOf: (chapter: Declaration['chapter']) => boolean): SettingsTable => ({
  ...{ id, title: `A layer: ${title}`, table: LAYER_SETTINGS },
  settings: Object.entries<Declaration>(LAYER_SETTINGS).filter(([, { chapter }]) => isOf(chapter)),
});
const named = (kind: string) => kind[0]!.toUpperCase() + kind.slice(1);

/** Every setting that there is, under what it belongs to. */
export const SETTINGS_TABLES: readonly SettingsTable[] = [
  ...CHAPTERS.map(([chapter, title]) => ofLayers(chapter, title, (of) => of === chapter)),
  ofLayers('others', 'the rest', (of) => !CHAPTERS.some(([known]) => known === of)),
  ...kinds('force', FORCE_SETTINGS, (kind: ForceKind) => `Force: ${FORCES[kind].name}`),
  ...kinds('surface', SURFACE_SETTINGS, (kind) => `Surface: ${SURFACE_NAMES[kind]}`),
  whole('front', 'A border that frees', FRONT_SETTINGS),
  whole('link', 'A link', LINK_SETTINGS),
  ...kinds('drawn', DRAWN_SETTINGS, (kind) => `Drawn as: ${named(kind)}`),
  ...kinds('ribbon', RIBBON_SETTINGS, (kind) => `Drawn as: ${named(kind)}`),
  ...kinds('step', STEP_SETTINGS, (kind: StepKind) => `Step of a look: ${STEP_NAMES[kind]}`),
].filter(({ settings }) => settings.length > 0);

/** Where the page of all settings tells of one of a table; null where it does not list it. */
export function anchorOf(table: object, name: string): string | null {
  const found = SETTINGS_TABLES.find((one) => one.table === table && one.settings.some(([known]) => known === name));
  return found ? `${found.id}:${name}` : null;
}
