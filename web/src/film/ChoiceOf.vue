<script setup lang="ts">
import { inject } from 'vue';
import { FILM_FORM, type OfType } from './fields';
import SelectField from '../SelectField.vue';

/** A setting of how pictures are taken that is chosen from a list. */
defineProps<{
  name: OfType<string | number>;
  choices: readonly { readonly value: string | number; readonly label: string }[];
}>();
const { settings, change } = inject(FILM_FORM)!;
</script>

<template>
  <SelectField :value="settings[name]" :options="[...choices]" @change="change({ [name]: $event })" />
</template>
