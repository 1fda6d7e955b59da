<script setup lang="ts">
import { Button, Popover } from 'ant-design-vue';
import { ref } from 'vue';

/**
 * An icon of the rail with a drawer beside it. It stays open while the stage is looked at, until it is pressed again,
 * another one opens, or Escape is pressed in it.
 */
const props = defineProps<{ name: string; help: string; width?: number }>();
const openName = defineModel<string | null>('open', { required: true });
const root = ref<HTMLElement>();
function close(): void {
  openName.value = null;
  root.value?.querySelector('button')?.focus();
}
const turn = () => (openName.value = openName.value === props.name ? null : props.name);
</script>

<template>
  <span ref="root">
    <Popover :open="openName === name" :trigger="[]" placement="rightTop" destroy-tooltip-on-hide>
      <template #content>
        <div
          class="drawer"
          role="group"
          :aria-label="name"
          :style="{ width: `${width ?? 300}px` }"
          @keydown.esc.stop="close"
        >
          <h2>{{ name }}</h2>
          <slot name="drawer"></slot>
        </div>
      </template>
      <Button
        type="text"
        class="rail-button"
        :class="{ open: openName === name }"
        :aria-label="name"
        :aria-expanded="openName === name"
        :title="`${name}: ${help}`"
        @click="turn"
      >
        <slot></slot>
      </Button>
    </Popover>
  </span>
</template>

<style scoped>
.drawer {
  line-height: 27px;
  max-height: calc(100vh - 90px);
  overflow-y: auto;
}
h2 {
  margin: 0 0 4px;
  font-size: 12.5px;
  font-weight: 500;
  line-height: 18px;
  color: var(--dim);
}
.drawer :deep(p) {
  margin: 0 0 4px;
}
</style>
