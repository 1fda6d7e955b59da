<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { computed, ref, type ComponentPublicInstance } from 'vue';
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
const button = ref<ComponentPublicInstance>();
const root = computed((): HTMLElement | undefined => button.value?.$el);
const { isOpen, open } = usePick(root, () => ({
  label: props.label,
  items: () => (typeof props.choices === 'function' ? props.choices() : props.choices),
  chosen: null,
  previews: props.previews,
  choose: (value) => emit('choose', value),
}));
</script>

<template>
  <Button
    ref="button"
    type="link"
    aria-haspopup="listbox"
    :aria-expanded="isOpen"
    @click="open()"
    @keydown.down.prevent="open()"
  >
    {{ label }}
  </Button>
</template>
