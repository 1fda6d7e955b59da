<script setup lang="ts">
import { ownerOf, shownLayers } from '@jinx/core/document';
import type { Census } from '@jinx/core/simulation';
import { message } from 'ant-design-vue';
import { Vector3 } from 'three';
import { computed, inject, ref, watch } from 'vue';
import { answered } from '../../engine/calls';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import type { Picture } from '../handles/picture';
import PickCatch from './PickCatch.vue';
import { cellOf, rowOf, useProbe } from './probe';
import { useCensus } from './useCensus';
import { actingOn } from './usePulls';

/** The glass on the stage: a ring about the particle under it, with the way it was seen to come; while one is picked, it takes the press. */
const props = defineProps<{ picture: Picture | null }>();
const store = useEffectStore();
const engine = inject(ENGINE)!;
const probe = useProbe();
/** Pixels from a particle within which a press picks it. */
const NEAR = 24;
const census = useCensus(engine, () => (probe.key === null ? '' : probe.layerId));

const placeOf = (from: Census, row: number) =>
  new Vector3(cellOf(from, row, 'x'), cellOf(from, row, 'y'), cellOf(from, row, 'z'));
/** Where it was seen, by step. */
const seen = ref(new Map<number, [number, number, number]>());
watch(
  () => probe.key,
  () => (seen.value = new Map()),
);
watch(census, (now) => {
  if (!now) return;
  const row = rowOf(now, probe.key);
  if (row >= 0) seen.value.set(now.step, placeOf(now, row).toArray());
});
const spot = computed(() => {
  const at = census.value && seen.value.get(census.value.step);
  const found = at && props.picture ? props.picture.spot(new Vector3(...at)) : null;
  return found?.isAhead ? found : null;
});
const way = computed(() =>
  [...seen.value]
    .sort(([a], [b]) => a - b)
    .flatMap(([, at]) => {
      const found = props.picture?.spot(new Vector3(...at));
      return found?.isAhead ? [`${found.x.toFixed(1)},${found.y.toFixed(1)}`] : [];
    })
    .join(' '),
);

/** How far the strongest arrow reaches, metres: about as wide as a figure. */
const ARROW_METRES = 0.5;
/** Where each force pushes it, as a line from it, and the force's kind at its end. */
const arrows = computed(() => {
  const at = census.value && seen.value.get(census.value.step);
  const pulls = probe.pulls ?? [];
  const strongest = Math.max(...pulls.map(({ change }) => Math.hypot(...change)));
  if (!at || !spot.value || !(strongest > LEAST)) return [];
  return actingOn(store.effect!, probe.layerId, pulls).flatMap(({ id, isShared, kind, pull }) => {
    const size = Math.hypot(...(pull?.change ?? [0]));
    if (!pull || size < strongest * LEAST) return [];
    const end = new Vector3(...pull.change).multiplyScalar(ARROW_METRES / strongest).add(new Vector3(...at));
    const found = props.picture!.spot(end);
    return found.isAhead
      ? [{ id: `${isShared} ${id}`, kind, isStrong: size > strongest * NAMED, x: found.x, y: found.y }]
      : [];
  });
});
/** Of the strongest: what does less has no arrow. */
const LEAST = 0.02;
/** Of the strongest, from which on an arrow has room for its name. */
const NAMED = 0.2;

async function pick(event: PointerEvent): Promise<void> {
  const { picture } = props;
  if (!picture) return;
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  const [x, y] = [event.clientX - box.left, event.clientY - box.top];
  let best: { layerId: string; key: number; distance: number } | null = null;
  // Those that show the same particles are looked at once.
  const owners = new Set([...shownLayers(store.effect!)].map((id) => ownerOf(store.effect!, id)));
  for (const layerId of owners) {
    const all = (await answered(engine.simulation.census(layerId)))?.census;
    if (!all) return;
    for (let row = 0; row < all.rows; row++) {
      const { x: left, y: top, isAhead } = picture.spot(placeOf(all, row));
      const distance = Math.hypot(left - x, top - y);
      if (isAhead && distance < (best?.distance ?? NEAR)) best = { layerId, key: all.keys[row]!, distance };
    }
  }
  if (!best) return void message.info('No particle is near enough there. Press nearer to one, or play on.');
  probe.isPicking = null;
  [probe.layerId, probe.key] = [best.layerId, best.key];
  store.choose([best.layerId]);
  store.page = 'probe';
}
</script>

<template>
  <svg v-if="probe.key !== null" class="glass" aria-hidden="true">
    <polyline v-if="way" :points="way" />
    <g v-for="arrow in arrows" :key="arrow.id" :data-pull="arrow.kind">
      <line class="under" :x1="spot!.x" :y1="spot!.y" :x2="arrow.x" :y2="arrow.y" />
      <line :x1="spot!.x" :y1="spot!.y" :x2="arrow.x" :y2="arrow.y" />
      <circle class="tip" :cx="arrow.x" :cy="arrow.y" r="2.5" />
      <text v-if="arrow.isStrong" :x="arrow.x + 6" :y="arrow.y + 4">{{ arrow.kind }}</text>
    </g>
    <circle v-if="spot" class="under" :cx="spot.x" :cy="spot.y" r="13" />
    <circle v-if="spot" :cx="spot.x" :cy="spot.y" r="13" data-glass />
  </svg>
  <PickCatch
    v-if="probe.isPicking === 'particle'"
    words="Press a particle"
    help="Press a particle to put it under the glass; Escape ends that"
    @press="pick"
    @end="probe.isPicking = null"
  />
</template>

<style scoped>
.glass {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
circle {
  fill: none;
  stroke: #f2f2f2;
  stroke-width: 1.5;
}
line {
  stroke: var(--accent);
  stroke-width: 1.5;
}
.tip {
  fill: var(--accent);
  stroke: none;
}
text {
  fill: #f2f2f2;
  font-size: 12.5px;
  paint-order: stroke;
  stroke: #101011;
  stroke-width: 3px;
}
.under {
  stroke: #101011c0;
  stroke-width: 4;
}
polyline {
  fill: none;
  stroke: #f2f2f2;
  stroke-width: 1;
  stroke-dasharray: 3 2;
}
</style>
