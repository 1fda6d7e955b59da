<script setup lang="ts">
import { Checkbox, Segmented } from 'ant-design-vue';
import { listed } from '@jinx/core/document';
import type { ApexOptions } from 'apexcharts';
import { computed, defineAsyncComponent, inject, ref, shallowRef, watch } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { plainHtml } from '../entry/format';
import { countText, plainNumber } from '../entry/numbers';
import { KEPT, type History, type Kept } from '../stage/livingHistory';

/** How each layer fares along the effect's time, as far as it was played: a line each, the chosen one bright. */
const props = defineProps<{ history: History; budget: number }>();
const ApexChart = defineAsyncComponent(() => import('vue3-apexcharts'));
const store = useEffectStore();
const engine = inject(ENGINE)!;
const WORDS: Record<Kept, { title: string; unit: string }> = {
  living: { title: 'Living', unit: '' },
  born: { title: 'Births a second', unit: '/s' },
  refused: { title: 'Births refused', unit: '' },
  milliseconds: { title: 'Milliseconds a step', unit: 'ms' },
};
/** What all layers together may take of a step at sixty steps a second. */
const STEP_MILLISECONDS = 1000 / 60;
const GREYS = ['#d0d0d4', '#a4a4a8', '#808086', '#c0b8a8', '#8c98a4'];
const DASHES = [0, 6, 2];
const shown = ref<Kept>('living');
const isSummed = ref(false);

/** Drawing the lines takes longer than a picture may wait: while the effect plays they stand as they were. */
const drawn = shallowRef(props.history);
watch(
  () => (engine.state.isPlaying ? null : props.history),
  (history) => {
    if (history) drawn.value = history;
  },
);
const length = computed(() => {
  const { opening, hold, closing } = store.effect!.stretches;
  return opening + (hold.kind === 'none' ? 0 : hold.seconds) + closing;
});
type Line = { name: string; data: [number, number | null][] };
const lines = computed((): Line[] => {
  const layers = listed(store.effect!.layers).flatMap(({ id, item }) => {
    const line = drawn.value[shown.value][id];
    return line ? [{ id, name: item.name, line }] : [];
  });
  const points = (line: readonly number[]) =>
    line.map((count, i): [number, number | null] => [
      Number(((i / (line.length - 1)) * length.value).toFixed(3)),
      count < 0 ? null : Number(count.toPrecision(4)),
    ]);
  if (!isSummed.value) return layers.map(({ name, line }) => ({ name, data: points(line) }));
  const own = layers.filter(({ id }) => store.effect!.layers.byId[id]!.population.kind === 'own');
  const sum = (own[0]?.line ?? []).map((_, i) =>
    own.some(({ line }) => line[i]! < 0) ? -1 : own.reduce((all, { line }) => all + line[i]!, 0),
  );
  return [{ name: 'all together', data: points(sum) }];
});
const chosen = computed(() => store.effect!.layers.order.indexOf(store.chosenId));
const limit = computed(() =>
  shown.value === 'living' ? props.budget : shown.value === 'milliseconds' ? STEP_MILLISECONDS : null,
);
const highest = computed(() => Math.max(0, ...lines.value.flatMap(({ data }) => data.map(([, y]) => y ?? 0))));
const peak = computed(
  () => `${countText(Number(plainNumber(highest.value)))}${WORDS[shown.value].unit && ` ${WORDS[shown.value].unit}`}`,
);

const options = computed<ApexOptions>(() => ({
  chart: {
    animations: { enabled: false },
    toolbar: { show: false },
    zoom: { enabled: false },
    background: 'transparent',
    fontFamily: 'inherit',
    foreColor: '#b4b4b8',
    events: {
      click: (_event, _chart, { dataPointIndex } = { dataPointIndex: -1 }) => {
        const seconds = lines.value[0]?.data[dataPointIndex]?.[0];
        if (seconds !== undefined) engine.playback.seekSheet(store.effect!.stretches, seconds);
      },
    },
  },
  theme: { mode: 'dark' },
  stroke: {
    width: lines.value.map((_, n) => (isSummed.value || n === chosen.value ? 2.5 : 1.3)),
    dashArray: lines.value.map((_, n) => (isSummed.value || n === chosen.value ? 0 : DASHES[n % DASHES.length]!)),
    curve: 'straight',
  },
  colors: lines.value.map((_, n) => (isSummed.value || n === chosen.value ? '#dfe875' : GREYS[n % GREYS.length]!)),
  grid: { borderColor: '#2c2c30' },
  legend: {
    position: 'right',
    fontSize: '12.5px',
    itemMargin: { vertical: 0 },
    markers: { size: 5, strokeWidth: 0, offsetX: -4 },
    formatter: plainHtml,
  },
  tooltip: {
    shared: true,
    y: { title: { formatter: (name: string) => `${plainHtml(name)}: ` } },
    x: { formatter: (x: number) => `${plainNumber(x)} s` },
  },
  xaxis: {
    type: 'numeric',
    min: 0,
    max: length.value,
    tickAmount: 8,
    labels: { style: { fontSize: '12.5px' }, formatter: (x: string) => `${plainNumber(Number(x))} s` },
  },
  yaxis: {
    min: 0,
    forceNiceScale: true,
    labels: { style: { fontSize: '12.5px' }, formatter: (y: number) => plainNumber(y) },
  },
  annotations:
    limit.value !== null && limit.value <= highest.value * 1.1
      ? {
          yaxis: [
            {
              y: limit.value,
              borderColor: '#f0a27a',
              label: { text: 'budget', style: { fontSize: '12.5px', background: '#161617', color: '#f0a27a' } },
            },
          ],
        }
      : {},
}));
</script>

<template>
  <section class="over" aria-label="Along the effect’s time">
    <div class="bar">
      <Segmented
        v-model:value="shown"
        :options="KEPT.map((value) => ({ value, label: WORDS[value].title }))"
        aria-label="What is drawn"
      />
      <Checkbox v-model:checked="isSummed">all layers together</Checkbox>
      <span class="space"></span>
      <span v-if="engine.state.isPlaying" class="quiet">The lines go on when it is paused.</span>
      <span class="quiet number" data-peak>
        at most {{ peak
        }}<template v-if="limit !== null"
          >, of {{ countText(Math.round(limit)) }} {{ WORDS[shown].unit }} that there are</template
        >
      </span>
    </div>
    <p v-if="highest === 0" class="quiet empty">
      {{
        shown === 'refused'
          ? 'No births were refused, as far as it was played.'
          : 'Play the effect and pause it: the lines are drawn as far as it was played.'
      }}
    </p>
    <div v-else class="chart">
      <ApexChart type="line" height="100%" width="100%" :options="options" :series="lines" />
    </div>
  </section>
</template>

<style scoped>
.over {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: #161617;
}
.bar {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 4px 12px;
  border-bottom: 1px solid var(--rule);
}
.space {
  flex: 1;
}
.empty {
  padding: 8px 12px;
}
.chart {
  flex: 1;
  min-height: 0;
  padding: 4px 8px 0;
}
</style>
