// ./jinx export: writes effects into files, without a window.
import { randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, rename, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { parseArgs } from 'node:util';
import { FILM_KINDS, filmSettingsSchema, plainName, type FilmKind, type FilmSettings } from '@jinx/core/formats';
import { pino } from 'pino';
import { connect, migrate, type Database } from '../database.ts';
import { Refusal } from '../errors.ts';
import { Incoming } from '../incoming.ts';
import { toneOf } from '../tone.ts';
import { Workers } from '../workers/workers.ts';
import { attachmentsFor } from './attachments.ts';
import { takeFilmOf } from './film.ts';
import { pageParts } from './page.ts';
import { sendParcel } from './send.ts';

const USE = `Use: ./jinx export PROJECT/EFFECT --as parcel|html|attachments --out FOLDER
     ./jinx export PROJECT --as parcel|html|attachments --out FOLDER    all its effects
     ./jinx export PROJECT/EFFECT --as png|exr|flipbook|film|webp --out FOLDER
       --preset NAME         as it is kept in the project; else as the dialog begins
       --size 1280x800  --rate 60  --from 0  --length 2.5  --quality low|middle|high
Names with spaces stand in quotes.`;

const OPTIONS = {
  as: { type: 'string' },
  out: { type: 'string' },
  preset: { type: 'string' },
  size: { type: 'string' },
  rate: { type: 'string' },
  from: { type: 'string' },
  length: { type: 'string' },
  quality: { type: 'string' },
} as const;

const ENDINGS = { parcel: '.parcel.zip', html: '.html', attachments: '.json' } as const;
type Kind = keyof typeof ENDINGS | FilmKind;
const isFilm = (as: Kind): as is FilmKind => FILM_KINDS.some((kind) => kind === as);

interface Asked {
  readonly project: string;
  /** The name of one effect; null for all. */
  readonly effect: string | null;
  readonly as: Kind;
  readonly out: string;
  /** The preset that pictures are taken by, and what is not as that says. */
  readonly preset: string | null;
  readonly settings: Partial<FilmSettings>;
}

function askedIn(words: readonly string[]): Asked {
  const use = new Refusal(400, 'use', USE);
  let values: { [name in keyof typeof OPTIONS]?: string };
  let positionals: string[];
  try {
    ({ values, positionals } = parseArgs({ args: [...words], options: OPTIONS, allowPositionals: true }));
  } catch {
    throw use;
  }
  const { as = '', out } = values;
  const [what] = positionals;
  const isKnown = Object.hasOwn(ENDINGS, as) || isFilm(as as Kind);
  if (!what || positionals.length > 1 || !out || !isKnown) throw use;
  const cut = what.indexOf('/');
  const [project, effect] = cut < 0 ? [what, null] : [what.slice(0, cut), what.slice(cut + 1)];
  if (isFilm(as as Kind) && effect === null) throw use;
  return { project, effect, as: as as Kind, out, preset: values.preset ?? null, settings: settingsIn(values) };
}

/** What is said of pictures beside a preset. @throws Refusal where that cannot be. */
function settingsIn(values: { readonly [name in keyof typeof OPTIONS]?: string }): Partial<FilmSettings> {
  const [width, height] = (values.size ?? '').split('x').map(Number);
  const said = {
    ...(values.size === undefined ? {} : { width, height }),
    ...(values.rate === undefined ? {} : { rate: Number(values.rate) }),
    ...(values.from === undefined ? {} : { from: Number(values.from) }),
    ...(values.length === undefined ? {} : { length: Number(values.length) }),
    ...(values.quality === undefined ? {} : { quality: values.quality }),
  };
  const read = filmSettingsSchema.partial().safeParse(said);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new Refusal(
    400,
    'use',
    `--${issue?.path[0] === 'width' || issue?.path[0] === 'height' ? 'size' : String(issue?.path[0])}: ${issue?.message}`,
  );
}

interface Named {
  readonly id: string;
  readonly name: string;
}

/** The one of a name, whatever its letters' case. @throws Refusal that lists those there are. */
function named(all: readonly Named[], name: string, what: string): Named {
  const found = all.filter((one) => one.name.toLowerCase() === name.toLowerCase());
  if (found.length === 1) return found[0]!;
  if (found.length > 1)
    throw new Refusal(409, 'twice', `There are ${found.length} ${what}s called "${name}": rename one.`);
  const names = all.map((one) => one.name).join(', ') || 'none';
  throw new Refusal(404, 'not-found', `There is no ${what} "${name}". There is: ${names}.`);
}

/** Writes a file as a whole or not at all. */
async function writeWhole(file: string, parts: Readable): Promise<void> {
  const part = `${file}.${randomUUID()}.part`;
  try {
    await pipeline(parts, createWriteStream(part));
    await rename(part, file);
  } finally {
    await rm(part, { force: true });
  }
}

/** The settings that a project keeps under a name. @throws Refusal that lists those there are. */
async function presetOf(database: Database, project: string, name: string | null): Promise<Partial<FilmSettings>> {
  if (name === null) return {};
  const { rows } = await database.query<Named & { settings: unknown }>(
    'select name as id, name, settings from film_presets where project_id = $1 order by name',
    [project],
  );
  const { id } = named(rows, name, 'preset');
  const read = filmSettingsSchema.safeParse(rows.find((row) => row.id === id)!.settings);
  if (read.success) return read.data;
  throw new Refusal(
    422,
    'preset',
    `The preset "${id}" was kept by another version of Jinx and cannot be read: keep it anew in the dialog.`,
  );
}

/** Says how far it has come where somebody looks on. */
function tellProgress({ done, of, secondsLeft }: { done: number; of: number; secondsLeft: number | null }): void {
  if (!process.stderr.isTTY) return;
  const left = secondsLeft === null ? '' : `, about ${Math.ceil(secondsLeft)} s left`;
  process.stderr.write(`\r${done} of ${of}${left}   ${done === of ? '\n' : ''}`);
}

async function run(database: Database, { project, effect, as, out, preset, settings }: Asked): Promise<string> {
  const projects = await database.query<Named>(
    'select id, name from projects where deleted_at is null order by name',
  );
  const { id } = named(projects.rows, project, 'project');
  const { rows } = await database.query<Named>(
    'select id, name from effects where project_id = $1 and deleted_at is null order by name, id',
    [id],
  );
  const effects = effect === null ? rows : [named(rows, effect, 'effect')];
  await mkdir(out, { recursive: true });
  const folder = path.join(tmpdir(), `jinx-export-${process.pid}`);
  const workers = new Workers(pino({ level: 'silent' }));
  const house = { database, incoming: new Incoming(folder), workers };
  try {
    if (isFilm(as)) {
      const [kept, tone] = [await presetOf(database, id, preset), await toneOf(database, id)];
      let made = '';
      await sendParcel(house, id, [effects[0]!.id], async (parcel) => {
        const ask = { parcel, kind: as, settings: { ...kept, ...settings, as }, tone, out, told: tellProgress };
        made = (await takeFilmOf(ask)).file;
      });
      return made;
    }
    const fileOf = (name: string) => path.join(out, `${plainName(name)}${ENDINGS[as]}`);
    if (as !== 'attachments') {
      const file = fileOf(effect ?? project);
      const ids = effects.map((each) => each.id);
      await sendParcel(house, id, ids, (made, _, name) =>
        writeWhole(file, as === 'html' ? Readable.from(pageParts(made, name)) : createReadStream(made)),
      );
      return file;
    }
    for (const each of effects) {
      const text = `${JSON.stringify(await attachmentsFor(house, each.id), null, 1)}\n`;
      await writeWhole(fileOf(each.name), Readable.from([text]));
    }
    return effects.map(({ name }) => fileOf(name)).join('\n');
  } finally {
    await workers.close();
    await rm(folder, { recursive: true, force: true });
  }
}

/** What went wrong with a file, in words. */
function sentenceOf(error: unknown): unknown {
  if (error instanceof Refusal) return error.message;
  const { code, path: where } = error as { code?: string; path?: string };
  if (code === 'ENOSPC')
    return `The disk is full${where ? ` (${where})` : ''}: make room, then run this again. Nothing was written.`;
  if (code === 'EACCES' || code === 'EPERM') return `No permission for ${where}: choose another folder.`;
  return code === 'ENOTDIR' || code === 'EEXIST' ? `${where} is no folder: choose another.` : error;
}

try {
  const asked = askedIn(process.argv.slice(2));
  const database = connect(process.env['JINX_DATABASE_URL']!, { isPatient: true });
  try {
    await migrate(database);
    console.log(await run(database, asked));
  } finally {
    await database.end();
  }
} catch (error) {
  console.error(sentenceOf(error));
  process.exitCode = 1;
}
