import type { Id } from '../document/index.ts';

/** The order of the one, with what the other moved, where it was not moved here; all that is in either, each once. */
export function mergeOrder(mine: readonly Id[], was: readonly Id[], is: readonly Id[]): Id[] {
  const common = (order: readonly Id[], others: readonly Id[]) => order.filter((id) => others.includes(id)).join();
  const isAsItWas = common(mine, was) === common(was, mine);
  const [order, extra] = isAsItWas ? [[...is], mine] : [[...mine], is];
  // What is only in the other stands after whatever it stood after there.
  extra.forEach((id, n) => {
    if (order.includes(id)) return;
    const after = extra
      .slice(0, n)
      .reverse()
      .find((one) => order.includes(one));
    order.splice(after === undefined ? 0 : order.indexOf(after) + 1, 0, id);
  });
  return order;
}
