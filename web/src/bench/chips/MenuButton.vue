<script setup lang="ts">
import { ref } from 'vue';
import type { PickItem } from '../pick/pick';
import { usePick } from '../pick/usePick';

/** A button that offers things to do: it acts when one is chosen. */
const props = defineProps<{
  label: string;
  /** What is offered; of what takes long to list, made as it opens. */
  choices: readonly PickItem[] | (() => readonly PickItem[]);
  /** Whether what is pointed at is seen in the effect: of what changes nothing but the document. */ previews?: boolean;
}>();
const emit = defineEmits<{ choose: [value: string] }>();
const root = ref<HTMLElement>();
const { isOpen, open } = usePick(root, () => ({
  label: props.label,
  items: () => (typeof props.choices === 'function' ? props.choices() : props.choices),
  chosen: null,
  previews: props.previews,
  choose: (value) => emit('choose', value),
}));
</script>

<template>
  <button
    ref="root"
    type="button"
    class="plain act"
    aria-haspopup="listbox"
    :aria-expanded="isOpen"
    @click="open()"
    @keydown.down.prevent="open()"
  >
    {{ label }}
  </button>
</template>
