<script setup lang="ts">
import { Button } from 'ant-design-vue';
import type { Vector } from '@jinx/core/document';
import { computed, ref } from 'vue';
import { alongWay, inProportion, WAYS, wayOf } from '../values/axes';
import MenuButton from './MenuButton.vue';
import PlainChip from './PlainChip.vue';

/** Three numbers in a sentence: x, y, z. Sizes can be set together, in proportion. */
const props = defineProps<{
  value: Vector;
  label: string;
  unit?: string;
  least: number;
  most: number;
  isSize?: boolean;
  /** Whether it is a direction, which words can name. */
  isWay?: boolean;
  /** Words beside those of the axes, with what they do. */
  moreWays?: Readonly<Record<string, () => void>> | undefined;
}>();
const emit = defineEmits<{ change: [value: Vector, gesture: string | null] }>();
const areTogether = ref(false);
const way = computed(() => wayOf(props.value));
const wayChoices = computed(() =>
  [...Object.keys(WAYS), ...Object.keys(props.moreWays ?? {})].map((value) => ({ value, text: value })),
);
function chooseWay(word: string): void {
  const act = props.moreWays?.[word];
  if (act) act();
  else emit('change', alongWay(word, props.value), null);
}
function set(axis: number, number: number, gesture: string | null): void {
  if (areTogether.value)
    return emit('change', inProportion(props.value, axis, number, props.least, props.most), gesture);
  const value = [...props.value] as Vector;
  value[axis] = number;
  emit('change', value, gesture);
}
</script>

<template>
  <span class="vector" role="group" :aria-label="label">
    <PlainChip
      v-for="(axis, index) in ['x', 'y', 'z']"
      :key="axis"
      :value="value[index]!"
      :label="`${label}, ${axis}`"
      :least="least"
      :most="most"
      :unit="unit"
      :hides-unit="index < 2"
      :several="3"
      @all="emit('change', $event as Vector, null)"
      @change="(number, gesture) => set(index, number, gesture)"
    />
    <MenuButton
      v-if="isWay"
      class="way"
      :class="{ none: way === null }"
      :label="way ?? 'along…'"
      :choices="wayChoices"
      :aria-label="`${label}: ${way ?? 'along…'}`"
      title="A direction by a word; as long as it was"
      previews
      @choose="chooseWay"
    />
    <Button
      v-if="isSize"
      type="text"
      :class="{ on: areTogether }"
      :aria-pressed="areTogether"
      :aria-label="`${label}, together`"
      title="One changes all three, in proportion"
      @click="areTogether = !areTogether"
    >
      =
    </Button>
  </span>
</template>

<style scoped>
.vector {
  white-space: nowrap;
}
.way {
  font-size: 12.5px;
}
.none {
  color: var(--dim);
}
</style>
