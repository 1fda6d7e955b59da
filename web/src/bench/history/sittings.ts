import type { Revision } from '../../api';

/** A pause of so long ends a sitting. */
const PAUSE_MILLISECONDS = 30 * 60_000;

/** Revisions that were made one soon after another, the newest first. */
export interface Sitting {
  readonly from: string;
  readonly to: string;
  readonly by: readonly string[];
  readonly revisions: readonly Revision[];
}

/** @param revisions the newest first. */
export function sittingsOf(revisions: readonly Revision[]): Sitting[] {
  const sittings: Revision[][] = [];
  for (const revision of revisions) {
    const last = sittings[sittings.length - 1];
    const later = last?.[last.length - 1];
    if (later && Date.parse(later.savedAt) - Date.parse(revision.savedAt) < PAUSE_MILLISECONDS) last.push(revision);
    else sittings.push([revision]);
  }
  return sittings.map((own) => ({
    from: own[own.length - 1]!.savedAt,
    to: own[0]!.savedAt,
    by: [...new Set(own.map(({ by }) => by).filter(Boolean))],
    revisions: own,
  }));
}
