<script setup lang="ts">
import { Input } from 'ant-design-vue';
import { ref, watch } from 'vue';

/** A line of text taken over on Enter or on leaving; Escape takes it back. What is being typed is never overwritten. */
const props = defineProps<{ value: string }>();
const emit = defineEmits<{ commit: [text: string] }>();
const text = ref(props.value);
const isTyping = ref(false);
watch(
  () => props.value,
  (value) => {
    if (!isTyping.value) text.value = value;
  },
);
function commit(): void {
  if (!isTyping.value) return;
  isTyping.value = false;
  const typed = text.value;
  text.value = props.value;
  if (typed !== props.value) emit('commit', typed);
}
function takeBack(event: KeyboardEvent): void {
  isTyping.value = false;
  text.value = props.value;
  (event.target as HTMLInputElement).blur();
}
</script>

<template>
  <Input
    v-model:value="text"
    @input="isTyping = true"
    @blur="commit"
    @keydown.enter="($event.target as HTMLInputElement).blur()"
    @keydown.esc.stop="takeBack"
  />
</template>
