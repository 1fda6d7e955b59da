<script setup lang="ts">
import type { KeyPlace } from '@jinx/core/document';
import { computed } from 'vue';
import { plainNumber } from '../../entry/numbers';
import ChoiceChip from '../../chips/ChoiceChip.vue';
import NumberField from '../../chips/NumberField.vue';
import { placed, tidy } from '../keyPlaces';

/** Where a key or a stop stands, as fields: typed, and held by a share of life or by seconds. `x` is where that is now. */
const props = defineProps<{ at: KeyPlace; x: number; life: number; what: 'key' | 'stop' }>();
const emit = defineEmits<{ change: [at: KeyPlace] }>();
const ANCHORS = [
  { value: 'share', text: 'of life' },
  { value: 'afterBirth', text: 'after birth' },
  { value: 'beforeDeath', text: 'before death' },
];
const isShare = computed(() => props.at.anchor === 'share');
const text = computed(() =>
  isShare.value ? `${plainNumber(props.at.value * 100)}%` : `${plainNumber(props.at.value)} s`,
);
const limits = computed(() =>
  isShare.value
    ? { name: 'the place in life', least: 0, most: 100, unit: '%' }
    : { name: 'the time', least: 0, most: 3600, unit: 's' },
);
const set = (value: number) => emit('change', { ...props.at, value: tidy(isShare.value ? value / 100 : value) });
/** Another anchor holds it where it now stands. */
const anchor = (value: string) => emit('change', placed(value as KeyPlace['anchor'], props.x, props.life));
</script>

<template>
  <NumberField :text="text" :limits="limits" :label="`place of the ${what}`" @change="set" />
  <ChoiceChip :value="at.anchor" :choices="ANCHORS" :label="`where the ${what} stands`" @choose="anchor" />
</template>
