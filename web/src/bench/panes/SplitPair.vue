<script setup lang="ts">
import { Pane, Splitpanes, type SplitpanesResizedPayload } from 'splitpanes';
import 'splitpanes/dist/splitpanes.css';
import { onMounted, ref, watch } from 'vue';

/**
 * Two panes with a border that is dragged, or moved with the arrow keys. `share` is what the second has, in percent. A double
 * click or Enter on the border folds the second pane away, or brings it back.
 */
const props = defineProps<{
  label: string;
  horizontal?: boolean;
  /** Percent that each pane keeps at least. */
  least: readonly [first: number, second: number];
}>();
const share = defineModel<number>('share', { required: true });
const isFolded = defineModel<boolean>('folded', { required: true });
const root = ref<HTMLElement>();
const own = () => root.value!.querySelector(':scope > .splitpanes > .splitpanes__splitter')!;
/** What the package leaves out: the border's name and how far it stands. */
function describe(): void {
  const border = own();
  border.setAttribute('aria-label', props.label);
  border.setAttribute('aria-valuemin', '0');
  border.setAttribute('aria-valuemax', String(100 - props.least[0]));
  border.setAttribute('aria-valuenow', String(isFolded.value ? 0 : Math.round(share.value)));
}
function resized({ panes, event }: SplitpanesResizedPayload): void {
  const size = panes[1]?.size;
  // Panes that come and go tell of sizes too: only a hand's are kept.
  if (!event || size === undefined) return;
  isFolded.value = size < props.least[1];
  if (!isFolded.value) share.value = size;
}
const fold = () => (isFolded.value = !isFolded.value);
onMounted(() => {
  describe();
  own().addEventListener('keydown', (event) => (event as KeyboardEvent).key === 'Enter' && fold());
});
watch([share, isFolded], describe);
</script>

<template>
  <div ref="root" class="pair">
    <Splitpanes
      :horizontal="horizontal"
      :maximize-panes="false"
      :push-other-panes="false"
      :keyboard-step="2"
      @resized="resized"
      @splitter-dblclick="fold"
    >
      <Pane :size="isFolded ? 100 : 100 - share" :min-size="least[0]"><slot name="first"></slot></Pane>
      <Pane :size="isFolded ? 0 : share" :class="{ folded: isFolded }"><slot name="second"></slot></Pane>
    </Splitpanes>
  </div>
</template>

<style scoped>
.pair {
  height: 100%;
  min-width: 0;
}
.pair :deep(> .splitpanes > .splitpanes__pane) {
  transition: none;
  will-change: auto;
}
.pair :deep(> .splitpanes > .splitpanes__pane.folded) {
  visibility: hidden;
}
.pair :deep(> .splitpanes > .splitpanes__splitter) {
  position: relative;
  flex: none;
  background: var(--rule);
}
.pair :deep(> .splitpanes--vertical > .splitpanes__splitter) {
  width: 2px;
}
.pair :deep(> .splitpanes--horizontal > .splitpanes__splitter) {
  height: 2px;
}
/* It is taken hold of a little beside it too. */
.pair :deep(> .splitpanes > .splitpanes__splitter)::after {
  content: '';
  position: absolute;
  inset: 0 -3px;
  z-index: 6;
}
/* Upward only: right below it stands the time sheet's head, which is scrubbed. */
.pair :deep(> .splitpanes--horizontal > .splitpanes__splitter)::after {
  inset: -5px 0 0;
}
.pair :deep(> .splitpanes > .splitpanes__splitter:hover),
.pair :deep(> .splitpanes > .splitpanes__splitter:focus-visible) {
  background: var(--accent);
}
</style>
