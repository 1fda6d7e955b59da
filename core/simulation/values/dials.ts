import { listed, type Effect } from '../../document/index.ts';

function shareOf(dial: Effect['dials']['byId'][string]): number {
  if (dial.kind === 'switch') return dial.value ? 1 : 0;
  if (dial.kind !== 'number') return 0;
  return dial.most > dial.least ? (dial.value - dial.least) / (dial.most - dial.least) : 0;
}

/** Which shares of their ranges the dials stand at. */
export function dialShares(effect: Pick<Effect, 'dials'>): Record<string, number> {
  return Object.fromEntries(listed(effect.dials).map(({ id, item }) => [id, shareOf(item)]));
}
