<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { formatAddress, type Vector, type VectorDeclaration, type VectorSetting } from '@jinx/core/document';
import { computed } from 'vue';
import { useSetting } from '../values/useSetting';
import VectorChip from './VectorChip.vue';

/** A vector of the chosen layer in a sentence: the same for all, or drawn for each between two. */
const props = defineProps<{ setting: string; label: string }>();
const { address, declaration, setting, change } = useSetting<VectorSetting, VectorDeclaration>(
  () => props.setting,
  () => undefined,
);
const base = computed(() => setting.value.base);
const low = computed(() => (base.value.kind === 'spread' ? base.value.low : base.value.value));

const set = (next: VectorSetting['base'], gesture: string | null = null) =>
  change(`set ${props.label}`, (target) => (target.base = next), gesture);
const setLow = (value: Vector, gesture: string | null) =>
  set(base.value.kind === 'spread' ? { ...base.value, low: value } : { kind: 'fixed', value }, gesture);
const vary = () =>
  base.value.kind === 'spread'
    ? set({ kind: 'fixed', value: [...base.value.low] })
    : set({ kind: 'spread', low: [...base.value.value], high: [...base.value.value] });
</script>

<template>
  <span :class="{ muted: setting.muted }" :data-address="formatAddress({ ...address, setting: props.setting })">
    <VectorChip
      :value="low"
      :label="label"
      :unit="base.kind === 'fixed' ? declaration.unit : undefined"
      :least="declaration.least"
      :most="declaration.most"
      @change="setLow"
    />
    <template v-if="base.kind === 'spread'">
      to
      <VectorChip
        :value="base.high"
        :label="`${label}, up to`"
        :unit="declaration.unit"
        :least="declaration.least"
        :most="declaration.most"
        @change="(high, gesture) => base.kind === 'spread' && set({ ...base, high }, gesture)"
      />
    </template>
  </span>
  <Button type="link" @click="vary">
    {{ base.kind === 'spread' ? 'the same for all' : 'to…' }}
  </Button>
</template>
