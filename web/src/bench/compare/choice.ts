import type { Effect } from '@jinx/core/document';
import { api } from '../../api';

const [REVISION, STATE] = ['revision ', 'state '];

/** The choice of an effect as it was at a revision, or as it was put by in the tray. */
export const revisionChoice = (revision: number): string => `${REVISION}${revision}`;
export const stateChoice = (id: string): string => `${STATE}${id}`;

interface Own {
  readonly id: string;
  readonly effect: Effect | null;
  readonly opened: Effect | null;
}

/** The effect of a choice, and how it is called: another's id, or a state of one's own. */
export async function chosenOther(of: string, own: Own): Promise<{ document: Effect; name: string }> {
  if (of === 'opened') return { document: own.opened!, name: 'as it was opened' };
  if (of === 'now') return { document: own.effect!, name: 'as it was just now' };
  if (of.startsWith(REVISION)) {
    const revision = Number(of.slice(REVISION.length));
    return { document: (await api.revision(own.id, revision)).document, name: `as it was at revision ${revision}` };
  }
  if (of.startsWith(STATE))
    return { document: (await api.keptState(of.slice(STATE.length))).document, name: 'as it was put by' };
  const { document } = await api.effect(of);
  return { document, name: document.name };
}
