import { readdirSync, readFileSync } from 'node:fs';
import pg from 'pg';

export type Database = pg.Pool;
export type Session = Pick<pg.PoolClient, 'query'>;

/** A statement that takes longer than this is ended by PostgreSQL: nobody waits for it any more. */
const MOST_MILLISECONDS = 4000;
/** PostgreSQL does not answer when it takes longer than this to connect, or to end a statement. */
const HUNG_MILLISECONDS = 4500;

/** @param isPatient for work that nobody waits for, as migrations: its statements may take any time. */
export function connect(url: string, { isPatient = false } = {}): Database {
  const limits = isPatient ? {} : { statement_timeout: MOST_MILLISECONDS, query_timeout: HUNG_MILLISECONDS };
  const pool = new pg.Pool({ connectionString: url, max: 10, connectionTimeoutMillis: HUNG_MILLISECONDS, ...limits });
  // A connection may be cut while it is at work; whoever works with it is told by the query that fails.
  pool.on('connect', (client) => client.on('error', () => undefined));
  return pool;
}

/** Two transactions that waited for each other: PostgreSQL ended one, which may simply be run again. */
const isDeadlock = (error: unknown): boolean => (error as { code?: unknown }).code === '40P01';
const MOST_TRIES = 4;

/** Runs `work` in one transaction: all of it is kept, or nothing. It may be run more than once before it is. */
export async function inTransaction<T>(database: Database, work: (session: Session) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++)
    try {
      return await once(database, work);
    } catch (error) {
      if (!isDeadlock(error) || tries === MOST_TRIES) throw error;
    }
}

async function once<T>(database: Database, work: (session: Session) => Promise<T>): Promise<T> {
  const client = await database.connect();
  let broken: Error | undefined;
  try {
    await client.query('begin');
    const result = await work(client);
    await client.query('commit').catch((error: unknown) => {
      throw isUnreachable(error) ? new OutcomeUnknown(error) : error;
    });
    return result;
  } catch (error) {
    // A connection that cannot even take back is lost: it is thrown away, and the first error is the one told.
    if (isUnreachable(error)) broken = error as Error;
    else await client.query('rollback').catch((lost: Error) => (broken = lost));
    throw error;
  } finally {
    client.release(broken);
  }
}

/** The connection broke while a transaction was being kept: it may have been, or not. */
export class OutcomeUnknown extends Error {
  constructor(cause: unknown) {
    super('the connection broke at the commit', { cause });
  }
}

/** Whether an error says that the database cannot be reached, rather than that it refused something. */
export function isUnreachable(error: unknown): boolean {
  if (error instanceof OutcomeUnknown) return true;
  const code = String((error as { code?: unknown }).code ?? '');
  const isNetwork = ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT'].includes(code);
  // PostgreSQL's classes 08 (connection) and 57P (shutting down, starting up).
  const isLost = /Connection terminated|Query read timeout|timeout exceeded when trying to connect/;
  return isNetwork || /^08|^57P/.test(code) || isLost.test((error as Error).message ?? '');
}

const FOLDER = new URL('./migrations/', import.meta.url);
/** Any number: it keeps two servers from migrating at once. */
const MIGRATION_LOCK = 7411;

/** A database that this Jinx is too old for. */
export class NewerDatabase extends Error {}

/** Brings the database up to date: each file of migrations/ once, in order of name. */
export async function migrate(database: Database): Promise<void> {
  await inTransaction(database, async (session) => {
    await session.query('select pg_advisory_xact_lock($1)', [MIGRATION_LOCK]);
    await session.query(
      'create table if not exists migrations (name text primary key, run_at timestamptz not null default now())',
    );
    const { rows } = await session.query<{ name: string }>('select name from migrations');
    const done = new Set(rows.map(({ name }) => name));
    const known = readdirSync(FOLDER)
      .filter((name) => name.endsWith('.sql'))
      .sort();
    const newer = [...done].find((name) => !known.includes(name));
    if (newer !== undefined)
      throw new NewerDatabase(
        `This database was written by a newer Jinx ("${newer}" is not known here): update Jinx, or restore an older backup. Nothing was changed.`,
      );
    for (const name of known) {
      if (done.has(name)) continue;
      await session.query(readFileSync(new URL(name, FOLDER), 'utf8'));
      await session.query('insert into migrations (name) values ($1)', [name]);
    }
  });
}
