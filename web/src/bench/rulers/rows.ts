import { childrenOf } from '@jinx/core/editing';
import type { Effect } from '@jinx/core/document';

/** How rows stand: front to back as they are drawn, or under the groups they stand in. */
export type Arrangement = 'drawn' | 'grouped';

/** A row of the rulers: a layer, or the head of a group. */
export interface Row {
  readonly kind: 'layer' | 'group';
  readonly id: string;
  readonly name: string;
  /** Its place front to back, from 1, where rows do not stand so themselves. */
  readonly drawNumber: number | null;
  /** How many groups it stands in, as far as rows show it. */
  readonly depth: number;
}

/** The rows of an effect; of groups in `folded` only the heads. A group stands where the foremost of its layers would. */
export function rowsOf(
  effect: Pick<Effect, 'layers' | 'groups'>,
  arrangement: Arrangement,
  folded: ReadonlySet<string>,
): Row[] {
  const layerRow = (id: string, depth: number, drawNumber: number | null): Row => {
    const { name } = effect.layers.byId[id]!;
    return { kind: 'layer', id, name, drawNumber, depth };
  };
  if (arrangement === 'drawn') return effect.layers.order.map((id) => layerRow(id, 0, null));
  const rank = new Map(effect.layers.order.map((id, n) => [id, n]));
  const foremost = (group: string): number => {
    const { layers, groups } = childrenOf(effect, group);
    return Math.min(Infinity, ...layers.map((id) => rank.get(id)!), ...groups.map(foremost));
  };
  const within = (parent: string | null, depth: number): Row[] => {
    const { layers, groups } = childrenOf(effect, parent);
    const children = [
      ...layers.map((id) => ({ kind: 'layer' as const, id, at: rank.get(id)! })),
      ...groups.map((id) => ({ kind: 'group' as const, id, at: foremost(id) })),
    ];
    // Empty groups come last; sorting keeps their own order.
    children.sort((a, b) => (a.at === b.at ? 0 : a.at - b.at));
    return children.flatMap(({ kind, id, at }): Row[] => {
      if (kind === 'layer') return [layerRow(id, depth, at + 1)];
      const { name } = effect.groups.byId[id]!;
      const head: Row = { kind, id, name, drawNumber: null, depth };
      return [head, ...(folded.has(id) ? [] : within(id, depth + 1))];
    });
  };
  return within(null, 0);
}
