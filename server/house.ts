import type { Logger } from 'pino';
import type { Buckets } from './access/buckets.ts';
import type { Database } from './database.ts';
import type { Importer } from './importing/importer.ts';
import type { Live } from './live.ts';
import type { Attempts } from './people/index.ts';
import type { Settings } from './settings.ts';

/** What every route may need. */
export interface House {
  readonly settings: Settings;
  readonly database: Database;
  readonly log: Logger;
  /** Whoever has something open. */
  readonly live: Live;
  /** Reads files that come from anywhere. */
  readonly importer: Importer;
  /** How often everybody may do what is costly. */
  readonly costly: Buckets;
  /** Who tried wrong passwords. */
  readonly attempts: Attempts;
}
