<script setup lang="ts">
import { computed, ref } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { openPick, type PickItem } from '../pick/pick';

/** A button that offers things to do: it acts when one is chosen. */
const props = defineProps<{
  label: string;
  choices: readonly PickItem[];
  /** Whether what is pointed at is seen in the effect: of what changes nothing but the document. */ previews?: boolean;
}>();
const emit = defineEmits<{ choose: [value: string] }>();
const store = useEffectStore();
const root = ref<HTMLElement>();
const isOpen = computed(() => openPick.value?.anchor === root.value && root.value !== undefined);

function open(): void {
  openPick.value = {
    label: props.label,
    items: () => props.choices,
    chosen: null,
    anchor: root.value!,
    typed: '',
    choose: (value) => emit('choose', value),
    point: (value) => props.previews && store.preview(value === null ? null : () => emit('choose', value)),
  };
}
</script>

<template>
  <button
    ref="root"
    type="button"
    class="plain act"
    aria-haspopup="listbox"
    :aria-expanded="isOpen"
    @click="open"
    @keydown.down.prevent="open"
  >
    {{ label }}
  </button>
</template>
