import { CanonicalTexts, readKept, type Effect } from '@jinx/core/document';
import { LRUCache } from 'lru-cache';
import type { Session } from '../database.ts';
import { Refusal } from '../errors.ts';

/** Effects that are worked on now stay at hand, so that a small change need not read all of one. */
const documents = new LRUCache<string, Effect>({ max: 128 });
const texts = new CanonicalTexts();

export const textOf = (effect: Effect): string => texts.of(effect);

/** Keeps at hand what an effect is after an edit. An edit's id is never used twice, so this never goes stale. */
export function remember(head: string, document: Effect): void {
  documents.set(head, document);
}

/** The document of an effect that stands at `head`, out of its text unless it is at hand. */
export function documentFrom(head: string, text: string): Effect {
  const document = documents.get(head) ?? readKept(text);
  remember(head, document);
  return document;
}

/** The same; the text is fetched only where it is needed. */
export async function documentOf(session: Session, id: string, head: string): Promise<Effect> {
  const known = documents.get(head);
  if (known) return known;
  const { rows } = await session.query<{ document: string }>(
    'select document from effects where id = $1 and head = $2',
    [id, head],
  );
  // It was written over since, where nothing kept others from it.
  if (!rows[0]) throw new Refusal(409, 'moved', 'This effect was changed at this very moment: ask again.');
  return documentFrom(head, rows[0].document);
}
