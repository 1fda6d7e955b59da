<script setup lang="ts">
import { Popover } from 'ant-design-vue';
import { ref } from 'vue';
import { isPickingIn } from '../pick/pick';

/**
 * What opens over a chip that is typed into. It stands only while it is open, so that hundreds of chips cost none. It lies in
 * the page that the chip lies in, and scrolls with it.
 */
const props = defineProps<{ anchor: HTMLElement }>();
defineEmits<{ focusout: [event: FocusEvent]; keydown: [event: KeyboardEvent] }>();
const root = ref<HTMLElement>();
const container = () => props.anchor.closest<HTMLElement>('.page') ?? document.body;
defineExpose({
  enter: () => root.value?.querySelector('button')?.focus(),
  /** Whether an element belongs to it, or what is chosen from now was opened by it. */
  holds: (element: Node | null) => root.value?.contains(element) === true || isPickingIn(root.value),
});
</script>

<template>
  <Popover
    :open="true"
    :trigger="[]"
    :arrow="false"
    placement="topLeft"
    overlay-class-name="chip-drawer"
    :get-popup-container="container"
  >
    <template #content>
      <div ref="root" class="drawer" @focusout="$emit('focusout', $event)" @keydown="$emit('keydown', $event)">
        <slot></slot>
      </div>
    </template>
    <i class="anchor"></i>
  </Popover>
</template>

<style scoped>
.anchor {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.drawer {
  width: 262px;
  display: flex;
  flex-direction: column;
  gap: 4px;
  font-size: 12.5px;
  line-height: 20px;
}
</style>
<style>
.chip-drawer .ant-popover-inner {
  padding: 6px 8px;
}
</style>
