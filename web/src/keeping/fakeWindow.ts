import { apply, diff, structuredCopy, type Effect } from '@jinx/core/document';
import { FakeServer } from './fakeServer';
import { Keeper } from './keeper';
import type { Unsaved } from './outbox';

/** A window that has the effect open. */
export class FakeWindow {
  keeper: Keeper;
  document: Effect;
  /** What this browser keeps for it. */
  kept: Unsaved | null = null;
  /** What it kept as it went away. */
  last: Unsaved | null = null;
  isFull = false;
  writes = 0;
  tookIn = 0;
  constructor(server: FakeServer, name: string, send: FakeServer['send'] = server.send) {
    this.document = server.document;
    this.keeper = new Keeper(
      'one',
      { ...server.standing, document: server.document },
      {
        send,
        since: server.since,
        window: name,
        outbox: {
          keep: async (unsaved) => {
            if (this.isFull) throw new Error('full');
            this.kept = structuredCopy(unsaved);
            this.writes++;
          },
          keepLast: (unsaved) => void (this.last = unsaved),
          forget: async () => void (this.kept = null),
        },
        changed: () => undefined,
        tookIn: (document) => {
          this.document = document;
          this.tookIn++;
        },
      },
    );
  }
  change(recipe: (draft: Effect) => void, label = 'change it'): void {
    const draft = structuredCopy(this.document);
    recipe(draft);
    const [before, changes] = [this.document, diff(this.document, draft)];
    this.document = apply(before, changes);
    this.keeper.take({ before, after: this.document, changes, label, gesture: null });
  }
}
export const seed = (value: number) => (draft: Effect) => void (draft.seed = value);
