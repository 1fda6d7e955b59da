import { useStorage } from '@vueuse/core';
import { computed, ref, type Ref } from 'vue';
import { dragBy } from './dragBy';

const LEAST_OPEN = 152;

/**
 * How the width of the rulers is divided between names, effect time and age, and how high the open row is: by default as much
 * as `left` says the other rows leave. Pixels.
 */
export function useRulerSizes(holder: Ref<HTMLElement | undefined>, width: Ref<number>, left: () => number) {
  const split = ref(0.46);
  const headWidth = useStorage('jinx rulers head', 236);
  /** Height that the open row was given by hand. */
  const givenHeight = ref<number | null>(null);
  const timeWidth = computed(() => Math.round((width.value - headWidth.value) * split.value));
  const lifeWidth = computed(() => width.value - headWidth.value - timeWidth.value - 1);
  const columns = computed(() => ({ gridTemplateColumns: `${headWidth.value}px ${timeWidth.value}px 1fr` }));
  const openHeight = computed(() => givenHeight.value ?? Math.max(LEAST_OPEN, left()));
  function divide(event: PointerEvent): void {
    const box = holder.value!.getBoundingClientRect();
    dragBy(event, ({ clientX }) => {
      const share = (clientX - box.left - headWidth.value) / (box.width - headWidth.value);
      split.value = share < 0.12 ? 0.04 : share > 0.88 ? 0.96 : share;
    });
  }
  const widen = (to: number) => (headWidth.value = Math.max(170, Math.min(420, Math.round(to))));
  function widenHeads(event: PointerEvent): void {
    const start = headWidth.value - event.clientX;
    dragBy(event, ({ clientX }) => widen(start + clientX));
  }
  const heighten = (to: number) => (givenHeight.value = Math.max(LEAST_OPEN, Math.min(900, Math.round(to))));
  function heightenOpen(event: PointerEvent): void {
    const start = openHeight.value - event.clientY;
    dragBy(event, ({ clientY }) => heighten(start + clientY));
  }
  const drags = { divide, widen, widenHeads, heighten, heightenOpen };
  return { split, headWidth, givenHeight, timeWidth, lifeWidth, columns, openHeight, ...drags };
}
