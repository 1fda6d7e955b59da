<script setup lang="ts">
import { computed, ref } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { openPick, type PickItem } from '../pick/pick';
import { typesInto } from '../entry/typesInto';

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
const store = useEffectStore();
const root = ref<HTMLElement>();
const chosen = computed(() => props.choices.find(({ value }) => value === props.value));
const isOpen = computed(() => openPick.value?.anchor === root.value && root.value !== undefined);

function open(typed = ''): void {
  openPick.value = {
    label: props.label,
    items: () => props.choices,
    chosen: props.value,
    anchor: root.value!,
    typed,
    offer: props.offer,
    choose: (value) => value !== props.value && emit('choose', value),
    point: (value) =>
      props.previews && store.preview(value === null || value === props.value ? null : () => emit('choose', value)),
  };
}
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
