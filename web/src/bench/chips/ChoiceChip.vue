<script setup lang="ts">
/** A choice in a sentence. */
defineProps<{ value: string; choices: readonly { value: string; text: string }[]; label: string }>();
defineEmits<{ choose: [value: string] }>();
</script>

<template>
  <select
    class="chip"
    :value="value"
    :aria-label="label"
    :title="label"
    @change="$emit('choose', ($event.target as HTMLSelectElement).value)"
  >
    <option v-for="choice in choices" :key="choice.value" :value="choice.value">{{ choice.text }}</option>
  </select>
</template>
