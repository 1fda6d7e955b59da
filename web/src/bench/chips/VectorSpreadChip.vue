<script setup lang="ts">
import { Button } from 'ant-design-vue';
import {
  formatAddress,
  listed,
  withItem,
  withoutItem,
  type HolderAddress,
  type Shaper,
  type Vector,
  type VectorDeclaration,
  type VectorSetting,
} from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ShaperWords from '../shapers/ShaperWords.vue';
import { newShaper, readsOffered } from '../values/shapers';
import { useSetting } from '../values/useSetting';
import MenuButton from './MenuButton.vue';
import VectorChip from './VectorChip.vue';

/** A vector of a layer or of a part of it in a sentence: the same for all or drawn for each between two, and what shapes each axis. */
const props = defineProps<{
  setting: string;
  label: string;
  of?: HolderAddress;
  moreWays?: Readonly<Record<string, () => void>> | undefined;
}>();
const store = useEffectStore();
const { address, declaration, setting, change } = useSetting<VectorSetting, VectorDeclaration>(
  () => props.setting,
  () => props.of,
);
const base = computed(() => setting.value.base);
const low = computed(() => (base.value.kind === 'spread' ? base.value.low : base.value.value));
const isSize = computed(() => declaration.value.least >= 0);
const isWay = computed(() => declaration.value.least < 0 && !declaration.value.unit.startsWith('°'));

const set = (next: VectorSetting['base'], gesture: string | null = null) =>
  change(`set ${props.label}`, (target) => (target.base = next), gesture);
const setLow = (value: Vector, gesture: string | null) =>
  set(base.value.kind === 'spread' ? { ...base.value, low: value } : { kind: 'fixed', value }, gesture);

const shapers = computed(() => listed(setting.value.shapers));
const offered = computed(() => readsOffered(declaration.value.reads, store.effect!));
const more = computed(() => [
  ...(declaration.value.mayVary
    ? [
        base.value.kind === 'spread'
          ? { value: 'same', text: 'the same for all' }
          : { value: 'vary', text: 'anywhere between two', help: 'Each particle has its own, drawn axis by axis' },
      ]
    : []),
  ...offered.value.map(({ value, text }) => ({ value, text: `shaped ${text}` })),
]);
function choose(value: string): void {
  if (value === 'same' && base.value.kind === 'spread') return set({ kind: 'fixed', value: [...base.value.low] });
  if (value === 'vary' && base.value.kind === 'fixed')
    return set({ kind: 'spread', low: [...base.value.value], high: [...base.value.value] });
  const { reads } = offered.value.find((offer) => offer.value === value)!;
  const id = store.newId();
  change(`shape ${props.label}`, (target) => (target.shapers = withItem(target.shapers, id, newShaper(reads))));
}
const setShaper = (id: string, shaper: Shaper, gesture: string | null) =>
  change(`shape ${props.label}`, (target) => (target.shapers.byId[id] = shaper), gesture);
const removeShaper = (id: string) =>
  change(`unshape ${props.label}`, (target) => (target.shapers = withoutItem(target.shapers, id)));
</script>

<template>
  <span
    :class="{ muted: setting.muted }"
    :data-address="formatAddress({ ...address, setting: props.setting })"
    :data-guide="`setting ${formatAddress({ ...address, setting: props.setting })}`"
  >
    <VectorChip
      :value="low"
      :label="label"
      :unit="base.kind === 'fixed' ? declaration.unit || undefined : undefined"
      :least="declaration.least"
      :most="declaration.most"
      :is-size="isSize && base.kind === 'fixed'"
      :is-way="isWay && base.kind === 'fixed'"
      :more-ways="moreWays"
      @change="setLow"
    />
    <template v-if="base.kind === 'spread'">
      to
      <VectorChip
        :value="base.high"
        :label="`${label}, up to`"
        :unit="declaration.unit || undefined"
        :least="declaration.least"
        :most="declaration.most"
        @change="(high, gesture) => base.kind === 'spread' && set({ ...base, high }, gesture)"
      />
    </template>
  </span>
  <MenuButton
    v-if="more.length"
    label="or…"
    :title="`Let ${label} differ between particles, or change`"
    :choices="more"
    previews
    @choose="choose"
  />
  <Button v-if="setting.muted" type="link" @click="change(`unmute ${label}`, (target) => (target.muted = false))">
    Unmute
  </Button>
  <ShaperWords
    v-for="{ id, item } in shapers"
    :key="id"
    :shaper="item"
    :label="label"
    :reads="declaration.reads"
    has-axes
    @change="(shaper, drag) => setShaper(id, shaper, drag)"
    @remove="removeShaper(id)"
  />
</template>
