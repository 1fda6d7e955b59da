<script setup lang="ts">
import { Checkbox } from 'ant-design-vue';
import { inject } from 'vue';
import { FILM_FORM, type OfType } from './fields';

/** A setting of how pictures are taken that is or is not. */
defineProps<{ name: OfType<boolean> }>();
const { settings, change } = inject(FILM_FORM)!;
</script>

<template>
  <Checkbox :checked="settings[name]" @change="change({ [name]: $event.target.checked })"><slot /></Checkbox>
</template>

<style scoped>
.ant-checkbox-wrapper {
  margin-inline-start: 0;
}
</style>
