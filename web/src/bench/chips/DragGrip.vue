<script setup lang="ts">
import { HolderOutlined } from '@ant-design/icons-vue';
import { Button } from 'ant-design-vue';
import { moved, type Collection, type Id } from '@jinx/core/document';
import { computed, nextTick, ref, type ComponentPublicInstance } from 'vue';
import type { PickItem } from '../pick/pick';
import { usePick } from '../pick/usePick';

/** By this, something is dragged to another place of its list; pressed, it offers where to; Alt and an arrow move it too. */
const props = defineProps<{ id: Id; name: string; all: Collection<unknown> }>();
const emit = defineEmits<{ order: [order: Id[]] }>();
const button = ref<ComponentPublicInstance>();
const root = computed((): HTMLElement | undefined => button.value?.$el);
const at = computed(() => props.all.order.indexOf(props.id));
const last = computed(() => props.all.order.length - 1);
/** Where it may go, by the place that it has there. */
const offered = computed((): PickItem[] =>
  [
    { to: at.value - 1, text: 'one up (Alt ↑)' },
    { to: at.value + 1, text: 'one down (Alt ↓)' },
    { to: 0, text: 'to the top' },
    { to: last.value, text: 'to the end' },
  ]
    .filter(({ to }, n) => to >= 0 && to <= last.value && to !== at.value && (n < 2 || Math.abs(to - at.value) > 1))
    .map(({ to, text }) => ({ value: String(to), text })),
);
function move(to: number): void {
  if (to < 0 || to > last.value) return;
  emit('order', [...moved(props.all, props.id, to).order]);
  // What moves in the page loses the focus.
  void nextTick(() => root.value?.focus());
}
const { isOpen, open } = usePick(root, () => ({
  label: `where ${props.name} goes`,
  items: () => offered.value,
  chosen: null,
  previews: false,
  choose: (value) => move(Number(value)),
}));
</script>

<template>
  <Button
    ref="button"
    class="drag-grip"
    type="text"
    aria-haspopup="listbox"
    :aria-expanded="isOpen"
    :aria-label="`Order of ${name}`"
    title="Drag it to another place, press for where to, or Alt with an arrow"
    :disabled="last === 0"
    @click="open()"
    @keydown.alt.up.prevent.stop="move(at - 1)"
    @keydown.alt.down.prevent.stop="move(at + 1)"
  >
    <HolderOutlined />
  </Button>
</template>

<style scoped>
.drag-grip.ant-btn {
  width: 24px;
  vertical-align: middle;
  padding: 0;
  cursor: grab;
}
</style>
