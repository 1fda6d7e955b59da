<script setup lang="ts">
import { reactive } from 'vue';
import type { ParcelChoice, ParcelClash } from '../api';

/** What to do with what of a parcel has the name of something else in the project. Nothing is changed until it is chosen. */
const props = defineProps<{ file: string; clashes: readonly ParcelClash[] }>();
const emit = defineEmits<{ choose: [choices: Record<string, ParcelChoice>]; leave: [] }>();
const KINDS = { effect: 'An effect', rig: 'A figure', picture: 'A picture' } as const;
const choices = reactive<Record<string, ParcelChoice>>(
  Object.fromEntries(props.clashes.map(({ of }) => [of, 'both' as const])),
);
const optionsOf = ({ kind, name }: ParcelClash): [ParcelChoice, string][] => [
  ['both', `keep both: the parcel’s becomes “${name} 2”`],
  kind === 'effect'
    ? ['over', 'write it over the one here; its history keeps what it was']
    : ['present', 'use the one here in its place'],
];
</script>

<template>
  <section class="question" role="group" :aria-label="`Namesakes in ${file}`">
    <p>
      <b>{{ file }}</b> has something of the same name and other content. Nothing is changed until you choose.
    </p>
    <fieldset v-for="clash in clashes" :key="clash.of">
      <legend>{{ KINDS[clash.kind] }} “{{ clash.name }}”</legend>
      <label v-for="[choice, text] in optionsOf(clash)" :key="choice">
        <input v-model="choices[clash.of]" type="radio" :name="clash.of" :value="choice" />
        {{ text }}
      </label>
    </fieldset>
    <button type="button" class="primary" @click="emit('choose', { ...choices })">Take the parcel in</button>
    <button type="button" class="plain" @click="emit('leave')">Leave it</button>
  </section>
</template>

<style scoped>
.question {
  border: 1px solid var(--warn);
  border-radius: 4px;
  padding: 10px 16px;
  margin: 14px 0;
}
.question p {
  margin: 0 0 8px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0 0 10px;
}
legend {
  border: 0;
  margin: 0 0 2px;
  font-size: inherit;
  color: var(--soft);
}
label {
  display: block;
  cursor: pointer;
}
input {
  accent-color: var(--accent);
}
.plain {
  margin-left: 10px;
}
</style>
