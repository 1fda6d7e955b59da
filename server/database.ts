import { readdirSync, readFileSync } from 'node:fs';
import pg from 'pg';

export type Database = pg.Pool;
export type Session = Pick<pg.PoolClient, 'query'>;

export const connect = (url: string): Database => new pg.Pool({ connectionString: url, max: 10 });

/** Runs `work` in one transaction: all of it is kept, or nothing. */
export async function inTransaction<T>(database: Database, work: (session: Session) => Promise<T>): Promise<T> {
  const client = await database.connect();
  try {
    await client.query('begin');
    const result = await work(client);
    await client.query('commit');
    return result;
  } catch (error) {
    await client.query('rollback');
    throw error;
  } finally {
    client.release();
  }
}

const FOLDER = new URL('./migrations/', import.meta.url);
/** Any number: it keeps two servers from migrating at once. */
const MIGRATION_LOCK = 7411;

/** Brings the database up to date: each file of migrations/ once, in order of name. */
export async function migrate(database: Database): Promise<void> {
  await inTransaction(database, async (session) => {
    await session.query('select pg_advisory_xact_lock($1)', [MIGRATION_LOCK]);
    await session.query(
      'create table if not exists migrations (name text primary key, run_at timestamptz not null default now())',
    );
    const { rows } = await session.query<{ name: string }>('select name from migrations');
    const done = new Set(rows.map(({ name }) => name));
    for (const name of readdirSync(FOLDER).sort()) {
      if (!name.endsWith('.sql') || done.has(name)) continue;
      await session.query(readFileSync(new URL(name, FOLDER), 'utf8'));
      await session.query('insert into migrations (name) values ($1)', [name]);
    }
  });
}
