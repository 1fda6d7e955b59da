<script setup lang="ts">
import { computed, ref } from 'vue';
import { typesInto } from '../entry/typesInto';
import type { PickItem } from '../pick/pick';
import { usePick } from '../pick/usePick';

/** A choice in a sentence. */
const props = defineProps<{
  value: string;
  choices: readonly PickItem[];
  label: string;
  /** Whether what is pointed at is seen in the effect: of what changes nothing but the document. */
  previews?: boolean;
  /** Makes something to choose of what is typed. */
  offer?: (typed: string) => PickItem | null;
}>();
const emit = defineEmits<{ choose: [value: string] }>();
const chosen = computed(() => props.choices.find(({ value }) => value === props.value));
const root = ref<HTMLElement>();
const { isOpen, open } = usePick(root, () => ({
  label: props.label,
  items: () => props.choices,
  chosen: props.value,
  offer: props.offer,
  previews: props.previews,
  choose: (value) => emit('choose', value),
}));
function keyDown(event: KeyboardEvent): void {
  const isOpening = ['ArrowDown', 'ArrowUp', 'Enter', ' '].includes(event.key);
  if (!isOpening && !typesInto(event, props.offer ? /^[a-z\d#]$/i : /^[a-z]$/i)) return;
  event.preventDefault();
  event.stopPropagation();
  open(isOpening ? '' : event.key);
}
</script>

<template>
  <button
    ref="root"
    type="button"
    class="chip choice"
    role="combobox"
    aria-haspopup="listbox"
    :aria-expanded="isOpen"
    :aria-label="label"
    :title="chosen?.help ? `${label}: ${chosen.help}` : label"
    :data-value="value"
    @click="open()"
    @keydown="keyDown"
  >
    {{ chosen?.text ?? value }}
  </button>
</template>
