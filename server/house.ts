import type { Logger } from 'pino';
import type { CostlyLimit } from './access/costly.ts';
import type { Database } from './database.ts';
import type { Slots } from './access/slots.ts';
import type { Followers } from './effects/index.ts';
import type { Incoming } from './incoming.ts';
import type { Live } from './live.ts';
import type { Attempts } from './people/index.ts';
import type { Quota } from './quota.ts';
import type { Settings } from './settings.ts';
import type { Workers } from './workers/workers.ts';

/** What every route may need. */
export interface House {
  readonly settings: Settings;
  readonly database: Database;
  readonly log: Logger;
  /** Whoever has something open. */
  readonly live: Live;
  /** Threads for what comes from outside or takes long. */
  readonly workers: Workers;
  /** Where uploads lie while they are worked on. */
  readonly incoming: Incoming;
  /** Lets effects take the changes of those they follow. */
  readonly followers: Followers;
  /** The disk that projects may take. */
  readonly quota: Quota;
  /** Assets that are read, and parcels that are made, at one time. */
  readonly reading: Slots;
  readonly exporting: Slots;
  /** How often everybody may do what is costly. */
  readonly costly: CostlyLimit;
  /** Who tried wrong passwords. */
  readonly attempts: Attempts;
}
