<script setup lang="ts">
import { listed } from '@jinx/core/document';
import { dialShares, EffectClock, newReading, numberReaders, windowOf } from '@jinx/core/simulation';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { plainNumber } from '../format';
import { useLayer } from '../life';
import { PAD } from './layout';
import PlaceKeys from './PlaceKeys.vue';

/** A layer along the effect's time: its births, bursts, and how long its particles live on; how many live. */
const props = defineProps<{
  layerId: string;
  width: number;
  height: number;
  living: readonly number[];
  isOpen: boolean;
}>();
const store = useEffectStore();
/** For a layer that follows, the births are the other's. */
const { layer: shown, owner: layer, measures, dials, lifetimes } = useLayer(() => props.layerId);
const stretches = computed(() => store.effect!.stretches);
const inner = computed(() => props.width - 2 * PAD);
/** The sheet shows the effect as it is when let go after one turn of its hold. */
const clock = computed(() => {
  const { opening, hold } = new EffectClock(stretches.value);
  return new EffectClock(stretches.value, opening + hold);
});
/** The part of the sheet in which births may happen, as shares of its length. */
const span = computed(() => {
  const { from, until } = windowOf(layer.value, store.effect!, clock.value);
  const share = (seconds: number) => Math.min(1, Math.max(0, seconds / Math.max(0.001, clock.value.length)));
  return { from: share(from), until: until === Infinity ? 1 : share(until), isOpen: until === Infinity };
});
const x = (share: number) => PAD + Math.min(1, share) * inner.value;
const base = computed(() => (props.isOpen ? props.height - 12 : props.height - 5));
const room = computed(() => base.value - (props.isOpen ? 26 : 5));

const rates = computed(() => {
  const numbers = numberReaders(layer.value, { measures: measures.value }, 1);
  const reading = { ...newReading(), dials: dialShares({ dials: dials.value }) };
  const { length, opening, hold, closing } = clock.value;
  const fades = numbers['births.rate'].isConstant && span.value.isOpen;
  const { from, until } = span.value;
  return Array.from({ length: 97 }, (_, i) => {
    reading.effectTime = from + (i / 96) * (until - from);
    const late = reading.effectTime * length - opening - hold;
    return numbers['births.rate'].read(reading) * (fades && closing > 0 && late > 0 ? 1 - late / closing : 1);
  });
});
const tickAt = (i: number) => span.value.from + ((i - 0.5) / 24) * (span.value.until - span.value.from);
const peak = computed(() => Math.max(...rates.value));
const isStanding = computed(() => {
  const { base: standing } = layer.value.settings['births.standing'];
  return standing.kind === 'fixed' && standing.value > 0;
});
const perMetre = computed(() => {
  const { base: metre } = layer.value.settings['births.perMetre'];
  return metre.kind === 'fixed' ? metre.value : 0;
});
const birthArea = computed(() => {
  const { from, until } = span.value;
  if (peak.value === 0 || from === until) return '';
  const points = rates.value.map((rate, i) => {
    const share = from + (i / 96) * (until - from);
    return `L${x(share).toFixed(1)} ${(base.value - (rate / peak.value) * room.value).toFixed(1)}`;
  });
  return `M${x(from)} ${base.value}${points.join('')}L${x(until)} ${base.value}Z`;
});
/** How long those born last live on past the end of births. */
const tail = computed(() => {
  const after = lifetimes.value[2] / Math.max(0.001, clock.value.length);
  const { length, closing } = clock.value;
  const from = span.value.isOpen && closing > 0 ? (length - closing) / length : span.value.until;
  return { from, to: Math.min(1, from + after) };
});
const bursts = computed(() => {
  const { opening, hold, length } = clock.value;
  const starts = { opening: 0, hold: opening, closing: opening + hold };
  return listed(layer.value.bursts).flatMap(({ id, item }) =>
    Array.from({ length: Math.min(item.times, 200) }, (_, time) => ({
      id: `${id}/${time}`,
      x: x((starts[item.stretch] + item.at + time * item.every) / Math.max(0.001, length)),
      count: item.most > item.count ? `${item.count} to ${item.most}` : `${item.count}`,
    })),
  );
});
const livingLine = computed(() => {
  const most = Math.max(...props.living, 1);
  return props.living
    .map((count, i) =>
      count < 0
        ? ''
        : `${i && props.living[i - 1]! >= 0 ? 'L' : 'M'}${x(i / (props.living.length - 1)).toFixed(1)} ${(base.value - (count / most) * room.value * 0.96).toFixed(1)}`,
    )
    .join('');
});
const births = computed(() =>
  isStanding.value
    ? 'stands'
    : [
        peak.value > 0 ? `${plainNumber(peak.value)} a second` : '',
        perMetre.value > 0 ? `${plainNumber(perMetre.value)} a metre` : '',
      ]
        .filter(Boolean)
        .join(', '),
);
const words = computed(() =>
  layer.value === shown.value ? births.value : `those of ${layer.value.name}: ${births.value}`,
);
</script>

<template>
  <svg
    :width="width"
    :height="height"
    :role="isOpen ? 'group' : 'img'"
    :aria-label="`${shown.name} over time: ${words || 'no births'}`"
    class="strip"
    :class="{ muted: shown.hidden, follows: layer !== shown }"
  >
    <rect
      v-if="isStanding"
      class="bar"
      :x="x(span.from)"
      :y="base - Math.min(room, 9)"
      :width="x(1) - x(span.from)"
      :height="Math.min(room, 9)"
      rx="1.5"
    />
    <path v-else-if="birthArea" class="births" :d="birthArea" />
    <template v-if="perMetre > 0 && !isStanding">
      <line
        v-for="i in 24"
        :key="i"
        class="tick"
        :x1="x(tickAt(i))"
        :x2="x(tickAt(i))"
        :y1="base - room * 0.7"
        :y2="base"
      />
    </template>
    <path
      v-if="!isStanding"
      class="tail"
      :d="`M${x(tail.from)} ${base}V${base - room * 0.5}L${x(tail.to)} ${base}Z`"
    />
    <path
      v-for="burst in bursts"
      :key="burst.id"
      class="burst"
      :d="`M${burst.x} ${isOpen ? 10 : base - room - 1}l5 5l-5 5l-5 -5z`"
    >
      <title>{{ burst.count }} at once</title>
    </path>
    <path v-if="isOpen" class="living" :d="livingLine" />
    <PlaceKeys v-if="isOpen" :layer-id="layerId" :y="height - 7" :left="PAD" :width="inner" :seconds="clock.length" />
    <text v-if="isOpen && words" class="words" :x="x(0.02)" :y="20">{{ words }}</text>
    <text v-if="isOpen && livingLine" class="words" :x="x(1) - 4" :y="20" text-anchor="end">
      line: alive, up to {{ Math.max(...living, 0).toLocaleString('en') }}
    </text>
  </svg>
</template>

<style scoped>
.strip {
  display: block;
}
.bar {
  fill: #606065;
}
.births {
  fill: #515156;
}
.tail {
  fill: #38383c;
  opacity: 0.7;
}
.tick {
  stroke: #75757a;
}
.burst {
  fill: var(--accent);
}
.living {
  fill: none;
  stroke: #d6d6d8;
  stroke-width: 1.2;
}
.words {
  fill: #c6c6c8;
  font-size: 12px;
}
.follows .births,
.follows .bar,
.follows .tail {
  opacity: 0.45;
}
.muted {
  opacity: 0.4;
}
</style>
