<script setup lang="ts">
import ChoiceChip from './ChoiceChip.vue';

/** Something that is on or off, in a sentence. */
defineProps<{ isOn: boolean; label: string }>();
defineEmits<{ turn: [isOn: boolean] }>();
const CHOICES = [
  { value: 'on', text: 'on' },
  { value: 'off', text: 'off' },
];
</script>

<template>
  <ChoiceChip
    :value="isOn ? 'on' : 'off'"
    :choices="CHOICES"
    :label="label"
    previews
    @choose="(value) => $emit('turn', value === 'on')"
  />
</template>
