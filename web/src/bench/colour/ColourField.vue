<script setup lang="ts">
import { Button, Popover } from 'ant-design-vue';
import { defineAsyncComponent, ref } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { isPickingIn } from '../pick/pick';

/** A colour as a swatch that opens the colour picker. All changes until it closes are one step of undo. */
defineProps<{ hex: string; label: string }>();
const emit = defineEmits<{ change: [hex: string]; choose: [paletteId: string] }>();
const ColourPicker = defineAsyncComponent(() => import('./ColourPicker.vue'));
const store = useEffectStore();
const isOpen = ref(false);
const root = ref<HTMLElement>();
function turn(open: boolean): void {
  if (!open && isPickingIn(root.value)) return;
  isOpen.value = open;
  if (!open) store.endGesture();
}
function close(): void {
  turn(false);
  root.value?.querySelector('button')?.focus();
}
</script>

<template>
  <span ref="root" class="colour-field">
    <Popover :open="isOpen" trigger="click" placement="bottom" destroy-tooltip-on-hide @open-change="turn">
      <template #content>
        <ColourPicker
          :hex="hex"
          @change="emit('change', $event)"
          @choose="emit('choose', $event)"
          @keydown.esc.stop="close"
        />
      </template>
      <Button class="swatch" :aria-label="label" :title="`${label}: ${hex}`" :aria-expanded="isOpen">
        <i :style="{ background: hex }"></i>
      </Button>
    </Popover>
  </span>
</template>

<style scoped>
.swatch {
  width: 30px;
  height: 22px;
  padding: 2px;
  margin: 0 2px;
  vertical-align: middle;
}
i {
  display: block;
  height: 100%;
  border-radius: 2px;
}
</style>
