import type { DiskUse } from '@jinx/core/answers';
import { LRUCache } from 'lru-cache';
import type { Session } from './database.ts';
import { Refusal } from './errors.ts';
import type { Settings } from './settings.ts';

/** Sums are taken anew after this. */
const FRESH_MILLISECONDS = 5000;
const MOST_REMEMBERED = 1000;

/** Bytes that a project's files, effects, revisions, edits and states of the tray take in the database. */
const PROJECT_BYTES = `select
  coalesce((select sum(size + coalesce(octet_length(thumbnail), 0)) from project_assets join assets using (hash) where project_id = $1), 0)
  + coalesce((select sum(size) from project_assets join assets on assets.hash = original where project_id = $1), 0)
  + coalesce((select sum(pg_column_size(document) + coalesce(pg_column_size(picture), 0)) from effects where project_id = $1), 0)
  + coalesce((select sum(pg_column_size(revisions.document)) from revisions join effects on effects.id = effect_id where project_id = $1), 0)
  + coalesce((select sum(pg_column_size(changes)) from edits join effects on effects.id = effect_id where project_id = $1), 0)
  + coalesce((select sum(pg_column_size(tray.document) + coalesce(pg_column_size(tray.picture), 0))
      from tray join effects on effects.id = effect_id where project_id = $1), 0)
  + coalesce((select sum(octet_length(content)) from project_files where project_id = $1), 0) as bytes`;

const inGigabytes = (bytes: number): string => (bytes / 1024 ** 3).toFixed(1);

/** The disk that projects may take, and take. */
export class Quota {
  readonly #settings: Pick<Settings, 'projectBytes' | 'totalBytes'>;
  readonly #known = new LRUCache<string, number>({ max: MOST_REMEMBERED, ttl: FRESH_MILLISECONDS });

  constructor(settings: Pick<Settings, 'projectBytes' | 'totalBytes'>) {
    this.#settings = settings;
  }

  /** The disk that a project and all of them take, and may take. */
  async useOf(session: Session, projectId: string): Promise<DiskUse> {
    const { projectBytes: mostBytes, totalBytes: mostAllBytes } = this.#settings;
    return {
      ...{ bytes: await this.bytesOf(session, projectId), mostBytes },
      ...{ allBytes: await this.#allBytes(session), mostAllBytes },
    };
  }

  #allBytes(session: Session): Promise<number> {
    return this.#sum(session, 'all', 'select pg_database_size(current_database()) as bytes', []);
  }

  async bytesOf(session: Session, projectId: string): Promise<number> {
    return this.#sum(session, projectId, PROJECT_BYTES, [projectId]);
  }

  async #sum(session: Session, key: string, sql: string, values: readonly string[]): Promise<number> {
    const known = this.#known.get(key);
    if (known !== undefined) return known;
    const { rows } = await session.query<{ bytes: string }>(sql, [...values]);
    const bytes = Number(rows[0]!.bytes);
    this.#known.set(key, bytes);
    return bytes;
  }

  /** @throws Refusal when a project, or all of Jinx, has no room for so many bytes more. */
  async mustHaveRoom(session: Session, projectId: string, bytes: number): Promise<void> {
    const { projectBytes, totalBytes } = this.#settings;
    const own = await this.bytesOf(session, projectId);
    if (own + bytes > projectBytes)
      throw new Refusal(
        507,
        'quota',
        `This project takes ${inGigabytes(own)} of the ${inGigabytes(projectBytes)} GB it may, and this needs ${inGigabytes(bytes)} GB more. Delete what is not needed: it counts until it is forgotten after 30 days. The setting is JINX_GIGABYTES_A_PROJECT.`,
      );
    const all = await this.#allBytes(session);
    if (all + bytes > totalBytes)
      throw new Refusal(
        507,
        'quota',
        `All projects together take ${inGigabytes(all)} of the ${inGigabytes(totalBytes)} GB that Jinx may: delete what is not needed, or raise JINX_GIGABYTES.`,
      );
    this.#known.set(projectId, own + bytes);
  }
}
