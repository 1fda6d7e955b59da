import type { Logger } from 'pino';
import type { Database } from './database.ts';
import type { Live } from './live.ts';

/** What every route may need: the database, the log, and whoever has something open. */
export interface House {
  readonly database: Database;
  readonly log: Logger;
  readonly live: Live;
}
