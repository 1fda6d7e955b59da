import type { Change, Effect } from '@jinx/core/document';
import type { ApiError, Standing } from '../api';

/**
 * saved: the server has all. waiting: a change is about to be sent. saving: it is on its way. away: there is no answer, and
 * it is tried again. clash: others changed the same thing, and it waits to be chosen which to keep. refused: the server
 * will not take it.
 */
export type SavingState = 'saved' | 'waiting' | 'saving' | 'away' | 'clash' | 'refused';

/** An effect as the server is known to have it. */
export interface Stand extends Standing {
  readonly document: Effect;
}

/** What others made of it, where that does not go with what was made here. */
export interface Met {
  readonly stand: Stand;
  readonly theirs: readonly Change[];
  readonly by: readonly string[];
  readonly sentence: string;
}

/** What a refusal says of what others made; without knowing from where, `theirs` is null. */
export function metIn({ body }: ApiError) {
  const { revision, head, document, theirs, by, taken } = body as unknown as Stand & {
    theirs: readonly Change[] | null;
    by: readonly string[];
    taken: number;
  };
  return { stand: { revision, head, document }, theirs, by, taken };
}
