import type { Logger } from 'pino';
import type { Database } from './database.ts';
import type { Importer } from './importing/importer.ts';
import type { Live } from './live.ts';

/** What every route may need: the database, the log, whoever has something open, and the reader of files. */
export interface House {
  readonly database: Database;
  readonly log: Logger;
  readonly live: Live;
  readonly importer: Importer;
}
