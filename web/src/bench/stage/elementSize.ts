import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue';

/** The size of an element as it changes. */
export function useElementSize(element: Ref<HTMLElement | undefined>): { width: Ref<number>; height: Ref<number> } {
  const width = ref(800);
  const height = ref(300);
  let watcher: ResizeObserver | null = null;
  onMounted(() => {
    watcher = new ResizeObserver(([entry]) => {
      width.value = entry!.contentRect.width;
      height.value = entry!.contentRect.height;
    });
    if (element.value) watcher.observe(element.value);
  });
  onBeforeUnmount(() => watcher?.disconnect());
  return { width, height };
}
