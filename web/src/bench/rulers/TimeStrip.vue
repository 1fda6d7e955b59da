<script setup lang="ts">
import { PRESENCE_CELLS, standsIn } from '@jinx/core/checks';
import { withItem } from '@jinx/core/document';
import { dialShares, newReading, numberReader, windowOf } from '@jinx/core/simulation';
import { computed } from 'vue';
import { FIRST_COUNT } from '../acts/useBurstActs';
import { useEffectStore } from '../../stores/effect';
import { keptComputed } from '../values/keptComputed';
import { countText } from '../entry/numbers';
import { useLayer } from '../values/life';
import BirthEnds from './BirthEnds.vue';
import { birthsPerMetre, birthWords } from './birthWords';
import { PAD } from './layout';
import PlaceKeys from './PlaceKeys.vue';
import ShapeKeys from './curves/ShapeKeys.vue';
import { burstAt, copyMark, marksOf, moveMark, removeMark, type TimedMark } from './timedMarks';
import TimeMarks from './TimeMarks.vue';
import { snappedTime, useTimeView } from './timeView';

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
const { clock, seconds, presence } = useTimeView();
const inner = computed(() => props.width - 2 * PAD);
/** The part of the sheet in which births may happen, in seconds; each by itself, so that what stays the same draws nothing anew. */
const births = computed(() => windowOf(layer.value, store.effect!, clock.value));
const onSheet = (time: number) => Math.min(clock.value.length, Math.max(0, time));
const from = computed(() => onSheet(births.value.from));
const until = computed(() => onSheet(births.value.until));
const isOpenEnded = computed(() => births.value.until === Infinity);
const x = (time: number) => PAD + Math.min(1, time / seconds.value) * inner.value;
const base = computed(() => (props.isOpen ? props.height - 12 : props.height - 4));
const room = computed(() => base.value - (props.isOpen ? 26 : 4));

const rates = computed(() => {
  const rate = numberReader(layer.value, 'births.rate', { measures: measures.value });
  const reading = { ...newReading(), dials: dialShares({ dials: dials.value }) };
  const { length, opening, hold, closing } = clock.value;
  const fades = rate.isLevel && isOpenEnded.value;
  return Array.from({ length: 97 }, (_, i) => {
    const time = from.value + (i / 96) * (until.value - from.value);
    reading.effectTime = length > 0 ? time / length : 0;
    const late = time - opening - hold;
    return rate.read(reading) * (fades && closing > 0 && late > 0 ? 1 - late / closing : 1);
  });
});
const tickAt = (i: number) => from.value + ((i - 0.5) / 24) * (until.value - from.value);
const peak = computed(() => Math.max(...rates.value));
const isStanding = computed(() => standsIn(layer.value, store.effect!));
const perMetre = computed(() => birthsPerMetre(layer.value));
const birthArea = computed(() => {
  if (peak.value === 0 || from.value === until.value) return '';
  const points = rates.value.map((rate, i) => {
    const time = from.value + (i / 96) * (until.value - from.value);
    return `L${x(time).toFixed(1)} ${(base.value - (rate / peak.value) * room.value * 0.8).toFixed(1)}`;
  });
  return `M${x(from.value)} ${base.value}${points.join('')}L${x(until.value)} ${base.value}Z`;
});
const ownPresence = computed(() => presence.value.get(ownerId.value));
/** How long those born last live on past the end of each run of births. */
const tails = computed(() => {
  const born = ownPresence.value?.born;
  if (!born || isStanding.value) return '';
  const cell = clock.value.length / PRESENCE_CELLS;
  const high = room.value * 0.4;
  let path = '';
  for (let i = 0; i < PRESENCE_CELLS; i++)
    if (born[i] && !born[i + 1]) {
      const ends = Math.min(clock.value.length, (i + 1) * cell);
      const [, , life] = lifetimes.value;
      const last = Math.min(clock.value.length, ends + life);
      // At the sheet's end it is cut off, and not yet down.
      const down = life > 0 ? (last - ends) / life : 1;
      path += `M${x(ends)} ${base.value}v${-high}L${x(last)} ${base.value - high * (1 - down)}V${base.value}Z`;
    }
  return path;
});
const ownerId = computed(() =>
  shown.value.population.kind === 'follows' ? shown.value.population.layer : props.layerId,
);
const marks = keptComputed(() => marksOf(layer.value, store.effect!, clock.value));
const livingLine = computed(() => {
  const { living } = props;
  const [zero, full] = [base.value, (room.value * 0.96) / Math.max(...living, 1)];
  const cell = ((clock.value.length / (living.length - 1)) * inner.value) / seconds.value;
  return living
    .map((count, i) =>
      count < 0
        ? ''
        : `${i && living[i - 1]! >= 0 ? 'L' : 'M'}${(PAD + i * cell).toFixed(1)} ${(zero - count * full).toFixed(1)}`,
    )
    .join('');
});
/** Pixels that a letter of the words takes, and what the words at the right take. */
const [LETTER, RIGHT] = [6.3, 150];
/** The words as far as there is room for them beside the others. */
const shortWords = computed(() => {
  const most = Math.floor((inner.value - RIGHT) / LETTER);
  return words.value.length > most ? `${words.value.slice(0, Math.max(0, most - 1)).trimEnd()}…` : words.value;
});
const words = computed(() => {
  const own = birthWords(store.effect!, ownerId.value, peak.value, marks.value);
  return layer.value === shown.value ? own : `those of ${layer.value.name}: ${own}`;
});

const isHits = computed(() => layer.value.source.kind === 'hits');
const what = computed(() => (isHits.value ? 'hit' : 'burst'));
function moveTo(mark: TimedMark, to: number, gesture: string | null): void {
  store.changeLayer(
    `move a ${what.value}`,
    (draft) => moveMark(draft, mark, clock.value, Math.min(to, clock.value.length)),
    gesture,
    ownerId.value,
  );
}
function setEvery(mark: TimedMark, every: number, gesture: string | null): void {
  store.changeLayer(
    'set how often a burst comes',
    ({ bursts }) => (bursts.byId[mark.id]!.every = Number(every.toFixed(4))),
    gesture,
    ownerId.value,
  );
}
/** A copy that is dragged away is one step of undo with the drag. */
const copy = (mark: TimedMark, to: number) =>
  store.changeLayer(
    `copy a ${what.value}`,
    (draft) => copyMark(draft, mark, clock.value, { seconds: to, id: store.newId() }),
    `pull ${mark.id}`,
    ownerId.value,
  );
const remove = (mark: TimedMark) =>
  store.changeLayer(`remove a ${what.value}`, (draft) => removeMark(draft, mark), null, ownerId.value);
function addBurst(event: MouseEvent): void {
  if (!props.isOpen || isHits.value) return;
  const box = (event.currentTarget as SVGElement).getBoundingClientRect();
  const perPixel = seconds.value / inner.value;
  const at = snappedTime(Math.max(0, (event.clientX - box.left - PAD) * perPixel), [], perPixel);
  const most = Math.max(FIRST_COUNT, ...Object.values(layer.value.bursts.byId).map(({ count }) => count));
  store.changeLayer(
    'add a burst',
    (draft) => (draft.bursts = withItem(draft.bursts, store.newId(), burstAt(clock.value, at, most))),
    null,
    ownerId.value,
  );
}
</script>

<template>
  <svg
    :width="width"
    :height="height"
    :role="isOpen ? 'group' : 'img'"
    :aria-label="`${shown.name} over time: ${words || 'no births'}`"
    class="strip painted-apart"
    :class="{ muted: shown.hidden, follows: layer !== shown }"
    @dblclick="addBurst"
  >
    <title v-if="isOpen && !isHits">Double click to add a burst</title>
    <rect
      v-if="isStanding"
      class="bar"
      :x="x(from)"
      :y="base - Math.min(room, 9)"
      :width="x(clock.length) - x(from)"
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
    <path class="tail" :d="tails" />
    <template v-if="!isOpen">
      <template v-for="mark in marks" :key="mark.id">
        <path
          v-for="time in mark.times"
          :key="time"
          class="burst"
          :d="`M${x(mark.seconds + (time - 1) * mark.every)} ${base}v${-room * mark.share}`"
        />
      </template>
    </template>
    <path class="living" :class="{ thin: !isOpen }" :d="livingLine" />
    <template v-if="isOpen">
      <BirthEnds
        v-if="!isHits"
        :layer-id="ownerId"
        :layer="layer"
        :top="base - room"
        :base="base"
        :left="PAD"
        :width="inner"
      />
      <TimeMarks
        :marks="marks"
        :top="base - room"
        :base="base"
        :left="PAD"
        :width="inner"
        @move="moveTo"
        @every="setEvery"
        @copy="copy"
        @remove="remove"
        @done="store.endGesture()"
      />
      <ShapeKeys :layer-id="layerId" :y="height - 7" :left="PAD" :width="inner" />
      <PlaceKeys :layer-id="layerId" :y="height - 7" :left="PAD" :width="inner" :seconds="seconds" />
    </template>
    <text v-if="isOpen && words" class="words" :x="PAD + 8" :y="16">{{ shortWords }}</text>
    <text v-if="isOpen && livingLine" class="words" :x="PAD + inner - 4" :y="16" text-anchor="end">
      line: alive, up to {{ countText(Math.max(...living, 0)) }}
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
  stroke: var(--accent);
  stroke-width: 1.2;
}
.living {
  fill: none;
  stroke: #d6d6d8;
  stroke-width: 1.2;
  pointer-events: none;
}
.thin {
  stroke-width: 0.8;
  opacity: 0.75;
}
.words {
  fill: #c6c6c8;
  font-size: 12.5px;
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
