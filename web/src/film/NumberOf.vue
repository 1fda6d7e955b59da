<script setup lang="ts">
import { filmLimits, type FilmNumber } from '@jinx/core/formats';
import { InputNumber } from 'ant-design-vue';
import { computed, inject } from 'vue';
import { FILM_FORM } from './fields';

/** A number of how pictures are taken, within its limits. One that was cleared stays what it was, unless it may be none. */
const props = defineProps<{ name: FilmNumber; label?: string; step?: number; placeholder?: string }>();
const { settings, change } = inject(FILM_FORM)!;
const limits = computed(() => filmLimits(props.name));
function set(value: unknown): void {
  if (typeof value === 'number' && Number.isFinite(value)) change({ [props.name]: value });
  else if (props.placeholder !== undefined) change({ [props.name]: null });
}
</script>

<template>
  <InputNumber
    :value="settings[name] ?? undefined"
    :min="limits.least"
    :max="limits.most"
    v-bind="limits.whole ? { precision: 0 } : {}"
    :step="step ?? 1"
    :placeholder="placeholder"
    :aria-label="label"
    @change="set"
  />
</template>

<style scoped>
.ant-input-number {
  width: 92px;
}
</style>
