<script setup lang="ts">
import {
  listed,
  MOST_LIGHTS,
  TIERS,
  withItem,
  withoutItem,
  type DistanceStep,
  type Thinning,
  type Tier,
} from '@jinx/core/document';
import { wholeOf } from '@jinx/core/editing';
import { Button, Switch } from 'ant-design-vue';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import ChoiceChip from '../chips/ChoiceChip.vue';
import PlainChip from '../chips/PlainChip.vue';
import { useReach } from './useReach';

/** How the effect is thinned where a whole one costs too much: tiers, steps by distance, and the bounds for culling. */
const store = useEffectStore();
const quality = computed(() => store.effect!.quality);
const { isMeasuring, measure, cancel } = useReach(inject(ENGINE)!);

const set = (tier: Tier, part: Partial<Thinning>, gesture: string | null = null) =>
  store.change(`set the ${tier} quality`, (draft) => Object.assign(draft.quality.tiers[tier], part), gesture);

const distances = computed(() => listed(quality.value.distances).sort((a, b) => a.item.beyond - b.item.beyond));
const SEEN = [
  ...TIERS.map((value) => ({ value: value as string, text: `in ${value} quality` })).reverse(),
  { value: 'none', text: 'no more' },
];
/** The next one is twice as far, and a tier lower. */
function add(): void {
  const last = distances.value.at(-1)?.item;
  const lower = { high: 'middle', middle: 'low', low: 'none', none: 'none' } as const;
  const next: DistanceStep = {
    beyond: last ? Math.min(10_000, last.beyond * 2) : 15,
    tier: lower[last?.tier ?? 'high'],
  };
  store.change('add a step by distance', (draft) => {
    draft.quality.distances = withItem(draft.quality.distances, store.newId(), next);
  });
}
const setStep = (id: string, part: Partial<DistanceStep>, gesture: string | null = null) =>
  store.change('set a step by distance', (draft) => Object.assign(draft.quality.distances.byId[id]!, part), gesture);
const remove = (id: string) =>
  store.change('remove a step by distance', (draft) => {
    draft.quality.distances = withoutItem(draft.quality.distances, id);
  });

/** Layers and steps of looks that not every tier has. */
const leftOut = computed(() => {
  const { layers, looks } = wholeOf(store.effect!).effect;
  const steps = [
    ...listed(looks).flatMap(({ item }) => listed(item.steps)),
    ...listed(layers).flatMap(({ item: { look } }) => (look.kind === 'own' ? listed(look.steps) : [])),
  ];
  const count = (tier: Tier, all: readonly { least: Tier }[]) =>
    all.filter(({ least }) => TIERS.indexOf(least) > TIERS.indexOf(tier)).length;
  const words = (n: number, one: string, many: string) => (n === 0 ? [] : [`${n} ${n === 1 ? one : many}`]);
  return Object.fromEntries(
    TIERS.map((tier) => [
      tier,
      [
        ...words(
          count(
            tier,
            listed(layers).map(({ item }) => item.quality),
          ),
          'layer',
          'layers',
        ),
        ...words(
          count(
            tier,
            steps.map(({ item }) => item),
          ),
          'step of a look',
          'steps of looks',
        ),
      ].join(' and '),
    ]),
  ) as Record<Tier, string>;
});
const size = computed(() => {
  const { bounds } = quality.value;
  return bounds && bounds.high.map((x, axis) => Number((x - bounds.low[axis]!).toPrecision(3))).join(' × ');
});
const forget = () => store.change('forget what it reaches', (draft) => (draft.quality.bounds = null));
</script>

<template>
  <p v-for="tier in [...TIERS].reverse()" :key="tier">
    <b>{{ tier[0]!.toUpperCase() + tier.slice(1) }}</b> keeps
    <PlainChip
      :value="quality.tiers[tier].births"
      :label="`${tier}: births that are kept`"
      unit="%"
      :least="1"
      :most="100"
      @change="(births, gesture) => set(tier, { births }, gesture)"
    />
    of the births,
    <label v-if="quality.tiers[tier].births < 100" class="larger">
      drawn larger
      <Switch
        size="small"
        :checked="quality.tiers[tier].keepsArea"
        :aria-label="`${tier}: those that are kept are drawn larger, so that they cover as much as all`"
        title="Those that are kept are drawn larger, so that they cover as much as all of them"
        @change="set(tier, { keepsArea: $event === true })"
      />,
    </label>
    up to
    <PlainChip
      :value="quality.tiers[tier].lights"
      :label="`${tier}: lights at once`"
      :least="0"
      :most="MOST_LIGHTS"
      whole
      @change="(lights, gesture) => set(tier, { lights }, gesture)"
    />
    {{ quality.tiers[tier].lights === 1 ? 'light' : 'lights' }} and
    <PlainChip
      :value="quality.tiers[tier].joints"
      :label="`${tier}: joints of ribbons`"
      unit="%"
      :least="10"
      :most="100"
      @change="(joints, gesture) => set(tier, { joints }, gesture)"
    />
    of the joints of ribbons<template v-if="leftOut[tier]">, without {{ leftOut[tier] }}</template
    >.
  </p>
  <p class="quiet">A layer says in Births, and a step in Appearance, which qualities have it.</p>
  <p v-for="{ id, item } in distances" :key="id">
    Beyond
    <PlainChip
      :value="item.beyond"
      label="beyond this distance"
      unit="m"
      :least="0.1"
      :most="10000"
      @change="(beyond, gesture) => setStep(id, { beyond }, gesture)"
    />
    from the camera it is seen
    <ChoiceChip
      :value="item.tier"
      :choices="SEEN"
      label="quality beyond this distance"
      @choose="setStep(id, { tier: $event as DistanceStep['tier'] })"
    />.
    <Button type="text" aria-label="Remove this step by distance" title="Remove it" @click="remove(id)"> × </Button>
  </p>
  <p>
    <Button v-if="distances.length < 8" type="link" @click="add">Add a step by distance</Button>
    <span v-if="distances.length === 0" class="quiet"> Players see it alike at any distance.</span>
  </p>
  <p v-if="isMeasuring">
    Playing it through to see what it reaches… <Button size="small" @click="cancel">Cancel</Button>
  </p>
  <p v-else-if="size">
    It stays within <b>{{ size }} m</b>: players leave it out where the camera does not look at that.
    <Button type="link" @click="measure">Measure again</Button>
    <Button type="text" aria-label="Forget what it reaches" title="Forget it" @click="forget"> × </Button>
  </p>
  <p v-else>
    <Button type="link" @click="measure">Measure what it reaches</Button>
    <span class="quiet"> Until then, players draw it wherever the camera looks.</span>
  </p>
</template>

<style scoped>
.larger {
  white-space: nowrap;
}
</style>
