import type { Following } from '@jinx/core/answers';
import { DocumentError } from '@jinx/core/document';
import type { Logger } from 'pino';
import { inTransaction, isUnreachable, type Database } from '../database.ts';
import { forLog, Refusal } from '../errors.ts';
import type { Written } from './edit.ts';
import { follow, followingOf, nextPair, type Pair } from './follow.ts';

const RETRY_MILLISECONDS = 1000;

/** What the queue of followers tells the rest of the server. */
export interface FollowerEvents {
  readonly written: (written: Written) => void;
  /** Those that follow an effect have come further. */
  readonly progress: (ofId: string, following: Following) => void;
}

/**
 * Works off the table of effects that have yet to take another's changes: one effect a transaction, after the save that
 * caused it was answered. What a server that ended left in the table is taken by the next.
 */
export class Followers {
  readonly #database: Database;
  readonly #log: Logger;
  readonly #events: FollowerEvents;
  #running: Promise<void> | null = null;
  #isAsked = false;
  #isOver = false;
  #timer: NodeJS.Timeout | undefined;

  constructor(database: Database, log: Logger, events: FollowerEvents) {
    [this.#database, this.#log, this.#events] = [database, log, events];
  }

  /** There may be something to take. */
  wake(): void {
    this.#isAsked = true;
    if (this.#isOver || this.#running) return;
    this.#running = this.#work().finally(() => {
      this.#running = null;
      if (this.#isAsked) this.wake();
    });
  }

  async #work(): Promise<void> {
    this.#isAsked = false;
    try {
      for (let pair = await nextPair(this.#database); pair && !this.#isOver; pair = await nextPair(this.#database))
        await this.#take(pair);
    } catch (error) {
      // The database is away: the table is there when it is back.
      if (!isUnreachable(error)) this.#log.error(forLog(error), 'followers could not be worked off');
      if (!this.#isOver) this.#timer = setTimeout(() => this.wake(), RETRY_MILLISECONDS).unref();
    }
  }

  async #take(pair: Pair): Promise<void> {
    let written: Written = new Map();
    try {
      await inTransaction(this.#database, async (session) => {
        written = new Map();
        await follow(session, pair, written);
      });
    } catch (error) {
      if (isUnreachable(error)) throw error;
      // What was taken back is not announced.
      written = new Map();
      const isOurs = error instanceof Refusal || error instanceof DocumentError;
      if (!isOurs) this.#log.error(forLog(error), 'an effect could not follow another');
      await this.#database.query('update following set failed = $3 where effect_id = $1 and of_id = $2', [
        pair.effectId,
        pair.ofId,
        isOurs ? (error as Error).message : 'The server failed at this; its log says why.',
      ]);
    }
    this.#events.written(written);
    this.#events.progress(pair.ofId, await followingOf(this.#database, pair.ofId));
  }

  async stop(): Promise<void> {
    this.#isOver = true;
    clearTimeout(this.#timer);
    await this.#running;
  }
}
