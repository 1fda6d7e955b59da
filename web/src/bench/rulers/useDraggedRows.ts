import { computed, ref, type Ref } from 'vue';
import { useDraggable } from 'vue-draggable-plus';
import { useEffectStore } from '../../stores/effect';
import { dragMilliseconds } from '../chips/dragging';
import type { Row } from './rows';
import type { LayerActs } from './useLayerActs';

/**
 * Rows that are dragged by their heads. A layer goes between other layers, into the group of the one that it was dragged over
 * last; or it is let go on a group's head and goes into it. A group goes into the group of what it is let go on.
 */
export function useDraggedRows(
  list: Readonly<Ref<HTMLElement | undefined>>,
  rows: () => readonly Row[],
  isGrouped: () => boolean,
  acts: LayerActs,
) {
  const store = useEffectStore();
  const dragged = ref<Row | null>(null);
  /** The row under the pointer, while something is dragged. */
  const over = ref('');
  const rowOf = (id: string | undefined) => rows().find((row) => row.id === id);
  const parentOf = ({ kind, id }: Row): string | null =>
    (kind === 'group' ? store.effect!.groups : store.effect!.layers).byId[id]!.parent;
  /** The layer that what is dragged was put beside last, and what stood below it before. */
  let [beside, below]: [Row | undefined, ChildNode | null] = [undefined, null];

  /** Puts a layer before what stands below it among the rows now, or else behind what it was put beside. */
  function put(from: Row, home: Row, item: HTMLElement): void {
    const order = store.effect!.layers.order.filter((id) => id !== from.id);
    const next = rowOf((item.nextElementSibling as HTMLElement | null)?.dataset['row']);
    const isNextTo = next?.kind === 'layer' && (!isGrouped() || parentOf(next) === parentOf(home));
    const place = isNextTo ? order.indexOf(next.id) : order.indexOf(home.id) + 1;
    acts.place(from.id, place, isGrouped() ? parentOf(home) : parentOf(from));
  }
  useDraggable(list, {
    handle: '.head-cell',
    draggable: '.row',
    ghostClass: 'dragged',
    animation: dragMilliseconds(),
    onStart({ item }) {
      dragged.value = rowOf(item.dataset['row']) ?? null;
      [beside, below] = [undefined, item.nextSibling];
    },
    onMove({ related }) {
      const row = rowOf(related.dataset['row']);
      const mayStand = dragged.value?.kind === 'layer' && row?.kind === 'layer';
      if (mayStand) beside = row;
      return mayStand;
    },
    onEnd(event) {
      // The library says that it is over with the event that ended it; Escape, or a place outside, let nothing go anywhere.
      const { item, originalEvent } = event as typeof event & { originalEvent?: Event };
      const isGivenUp = originalEvent?.type === 'dragend';
      const [from, target] = [dragged.value, rowOf(over.value)];
      [dragged.value, over.value] = [null, ''];
      const act = (): unknown => {
        if (!from || isGivenUp) return;
        if (target && (from.kind === 'group' || target.kind === 'group')) {
          const home = target.kind === 'group' ? target.id : parentOf(target);
          return from.kind === 'group' ? acts.putGroup(from.id, home) : acts.putLayers(from.id, home);
        }
        return from.kind === 'layer' && beside && beside.id !== from.id && put(from, beside, item);
      };
      act();
      // The rows are made of the effect, in the order that the page knows of.
      item.parentNode!.insertBefore(item, below?.parentNode === item.parentNode ? below : null);
    },
  });
  /** Whether what is pointed at takes in what is dragged. */
  const isInto = computed(() => {
    const [from, target] = [dragged.value, rowOf(over.value)];
    return !from || from.kind === 'group' || target?.kind === 'group';
  });
  return { over, isInto };
}
