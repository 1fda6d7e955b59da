import { strToU8 } from 'fflate';
import { keepAsset } from '../../assets.ts';
import type { Session } from '../../database.ts';
import type { Sent } from './lie.ts';
import { LIES } from './lies.ts';
import type { Materials } from './materials.ts';
import { mutated } from './mutations.ts';
import { Random } from './random.ts';

export interface HostileOutcome {
  readonly files: number;
  /** Answers that were none, or that said that the server failed. */
  readonly crashes: readonly string[];
  /** Answers that took over two seconds. */
  readonly hangs: readonly string[];
  /** Refusals after which there was more in the database than before. */
  readonly leftovers: readonly string[];
  /** Lies that were believed. */
  readonly believed: readonly string[];
  /** Refusals without a code and a sentence. */
  readonly speechless: readonly string[];
  readonly refusals: ReadonlyMap<string, number>;
}

const TABLES = [
  'projects',
  'effects',
  'edits',
  'assets',
  'asset_slices',
  'project_assets',
  'revisions',
  'tray',
  'linked_effects',
  'film_presets',
];
const MOST_MILLISECONDS = 2000;

const rowsIn = async (database: Session): Promise<string> => {
  const counts = TABLES.map((table) => `(select count(*) from ${table})::text`).join(` || ' ' || `);
  return (await database.query<{ rows: string }>(`select ${counts} as rows`)).rows[0]!.rows;
};

/** Sends one thing to a project. */
export async function sendTo(
  base: string,
  project: string,
  { to, name, bytes }: Sent,
): Promise<{ status: number; body: Record<string, unknown> }> {
  const answer = await fetch(`${base}/projects/${project}/${to}?name=${name}`, {
    method: to === 'presets' ? 'PUT' : 'POST',
    body: bytes as Uint8Array<ArrayBuffer>,
    signal: AbortSignal.timeout(60_000),
  });
  const body = answer.status === 204 ? {} : ((await answer.json()) as Record<string, unknown>);
  return { status: answer.status, body };
}

/** What is untouched, to see that it is taken in. */
export const controls = ({ parcel, document, preset, png, jpg, glb }: Materials): Sent[] => [
  { to: 'parcels', name: 'x.parcel.zip', bytes: parcel },
  { to: 'effects', name: '', bytes: strToU8(`{"document":${document}}`) },
  { to: 'presets', name: '', bytes: strToU8(preset) },
  { to: 'assets', name: 'x.png', bytes: png },
  { to: 'assets', name: 'x.jpg', bytes: jpg },
  { to: 'assets', name: 'x.glb', bytes: glb },
];

/**
 * Sends so many spoilt files, every other of them with exactly one lie, to a server, and looks after each what became of it.
 * @param base the server's address, up to "/api".
 */
export async function hostileRun(
  base: string,
  database: Session,
  materials: Materials,
  files: number,
  seed: number,
): Promise<HostileOutcome> {
  const random = new Random(seed);
  const made = (await (await fetch(`${base}/projects`, { method: 'POST', body: '{"name":"Hostile"}' })).json()) as {
    id: string;
  };
  const outcome = {
    crashes: [] as string[],
    hangs: [] as string[],
    leftovers: [] as string[],
    believed: [] as string[],
    speechless: [] as string[],
  };
  const refusals = new Map<string, number>();
  // Assets that documents name are there, so that only the lie stands in their way.
  for (const { bytes, ...asset } of materials.assets)
    await keepAsset(database, made.id, { ...asset, content: bytes });
  for (let n = 0; n < files; n++) {
    const isLie = n % 2 === 0;
    const [name, lie] = LIES[(n / 2) % LIES.length] ?? LIES[0]!;
    const sent = isLie ? lie(materials, random) : mutated(materials, random);
    const what = isLie ? name : `${sent.name || 'document'} spoilt at random (${n})`;
    const before = await rowsIn(database);
    const began = performance.now();
    const answer = await sendTo(base, made.id, sent).catch(() => null);
    if (performance.now() - began > MOST_MILLISECONDS) outcome.hangs.push(what);
    if (!answer || answer.status >= 500) {
      outcome.crashes.push(`${what}: ${answer ? JSON.stringify(answer.body) : 'no answer'}`);
      continue;
    }
    if (answer.status < 300) {
      if (isLie) outcome.believed.push(what);
      continue;
    }
    const { code, sentence } = answer.body;
    if (typeof code !== 'string' || typeof sentence !== 'string' || sentence.length < 8)
      outcome.speechless.push(what);
    refusals.set(String(code), (refusals.get(String(code)) ?? 0) + 1);
    if ((await rowsIn(database)) !== before) outcome.leftovers.push(what);
  }
  return { files, ...outcome, refusals };
}
