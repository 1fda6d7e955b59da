<script setup lang="ts" generic="T">
import type { Collection, Id } from '@jinx/core/document';
import { computed } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import { dragMilliseconds } from './dragging';

/** What stands in a collection, one below the other: each is dragged to another place by its `DragGrip`. */
const props = defineProps<{ all: Collection<T>; tag?: 'div' | 'ol' }>();
const emit = defineEmits<{ order: [order: Id[]] }>();
const order = computed({ get: () => [...props.all.order], set: (ids) => emit('order', ids) });
</script>

<template>
  <VueDraggable
    v-model="order"
    :tag="tag ?? 'div'"
    handle=".drag-grip"
    ghost-class="dragged"
    :animation="dragMilliseconds()"
  >
    <slot></slot>
  </VueDraggable>
</template>

<style scoped>
:deep(.dragged) {
  opacity: 0.5;
}
</style>
