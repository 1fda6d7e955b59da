import type { Edit } from '@jinx/core/document';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** What a window has made of an effect and the server is not known to have. */
export interface Unsaved {
  readonly effectId: string;
  readonly window: string;
  readonly name: string;
  /** The revision that the first edit was made from; each later one was made from what came of that before it. */
  readonly revision: number;
  readonly head: string;
  readonly edits: readonly Edit[];
  /** Milliseconds since 1970. */
  readonly since: number;
  /** Why the server will not have it, as it is: it is not sent again by itself. */
  readonly refused?: string;
}

/** A state that was put by and that the server is not known to have. */
export interface UnsentState {
  readonly id: string;
  readonly effectId: string;
  readonly body: string;
  /** Why the server will not have it: it is not sent again. */
  readonly refused?: string;
}

interface Kept extends DBSchema {
  unsaved: { key: [string, string]; value: Unsaved };
  states: { key: string; value: UnsentState };
}

const LAST = 'jinx last ';
/** What cannot be read is kept under another name: somebody may still make something of it. */
const UNREADABLE = 'jinx unreadable ';

/** @throws an error where it is not what `keepLast` wrote. */
function readUnsaved(text: string): Unsaved {
  const unsaved = JSON.parse(text) as Partial<Unsaved> | null;
  const { effectId, window, edits } = unsaved ?? {};
  if (typeof effectId !== 'string' || typeof window !== 'string' || !Array.isArray(edits))
    throw new Error('not unsaved work');
  return unsaved as Unsaved;
}

/** Keeps in this browser what the server does not have yet, also when the page is closed. */
export class Outbox {
  #opened: Promise<IDBPDatabase<Kept>> | null = null;
  /** How many entries of this browser could not be read, since the page was opened. */
  unreadable = 0;

  #database(): Promise<IDBPDatabase<Kept>> {
    this.#opened ??= openDB<Kept>('jinx', 1, {
      upgrade(database) {
        database.createObjectStore('unsaved', { keyPath: ['effectId', 'window'] });
        database.createObjectStore('states', { keyPath: 'id' });
      },
    });
    return this.#opened.catch((error: unknown) => {
      this.#opened = null;
      throw error;
    });
  }

  /** Keeps it at once, as a page goes away and nothing is waited for any more. */
  keepLast(unsaved: Unsaved): void {
    try {
      localStorage.setItem(LAST + unsaved.window, JSON.stringify(unsaved));
    } catch {
      // It is full: what was kept before is all there is.
    }
  }

  /** Puts what was kept last by pages that are gone with the rest. */
  async #takeLast(): Promise<void> {
    for (const name of Object.keys(localStorage).filter((key) => key.startsWith(LAST))) {
      const text = localStorage.getItem(name)!;
      let unsaved: Unsaved;
      try {
        unsaved = readUnsaved(text);
      } catch {
        localStorage.setItem(UNREADABLE + name.slice(LAST.length), text);
        localStorage.removeItem(name);
        this.unreadable++;
        continue;
      }
      await this.keep(unsaved);
      localStorage.removeItem(name);
    }
  }

  async keep(unsaved: Unsaved): Promise<void> {
    await (await this.#database()).put('unsaved', unsaved);
  }
  async forget(effectId: string, window: string): Promise<void> {
    await (await this.#database()).delete('unsaved', [effectId, window]);
  }
  /** All that is kept, the oldest first. */
  async all(): Promise<Unsaved[]> {
    await this.#takeLast();
    return (await (await this.#database()).getAll('unsaved')).sort((a, b) => a.since - b.since);
  }

  async keepState(state: UnsentState): Promise<void> {
    await (await this.#database()).put('states', state);
  }
  async forgetState(id: string): Promise<void> {
    await (await this.#database()).delete('states', id);
  }
  async states(): Promise<UnsentState[]> {
    return (await this.#database()).getAll('states');
  }
}

export const outbox = new Outbox();
