<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { ownerOf } from '@jinx/core/document';
import type { Pull } from '@jinx/core/simulation';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { plainNumber } from '../entry/numbers';
import { cellOf, pickOne, rowOf, useProbe } from './probe';
import { useCensus } from './useCensus';
import { actingOn, usePulls } from './usePulls';

/** One particle under the glass: all it carries, and what acts on it. */
const store = useEffectStore();
const engine = inject(ENGINE)!;
const probe = useProbe();
const census = useCensus(engine, () => probe.layerId);
const row = computed(() => (census.value ? rowOf(census.value, probe.key) : -1));
const layer = computed(() => store.effect!.layers.byId[probe.layerId]);
/** Columns that are read together. */
const TOGETHER = [
  { id: 'place', columns: ['x', 'y', 'z'] },
  { id: 'velocity', columns: ['vx', 'vy', 'vz'] },
  { id: 'colour', columns: ['red', 'green', 'blue'] },
];
const rows = computed(() => {
  const from = census.value;
  if (!from || row.value < 0) return [];
  const values = (ids: readonly string[]) => ids.map((id) => plainNumber(cellOf(from, row.value, id))).join(', ');
  return from.columns.flatMap(({ id, name, unit }) => {
    const together = TOGETHER.find(({ columns }) => columns.includes(id));
    if (together && together.columns[0] !== id) return [];
    const text = values(together?.columns ?? [id]);
    return [{ id: together?.id ?? id, name: together?.id ?? name, text: `${text}${unit && ` ${unit}`}` }];
  });
});
usePulls(engine, probe);
const forces = computed(() => (layer.value ? actingOn(store.effect!, probe.layerId, probe.pulls) : []));
/** What does next to nothing in a step, and which share of a change of velocity a shift must be to be told beside it. */
const NOTHING = 0.005;
const BESIDE = 0.02;
const axes = (way: readonly number[]) => way.map(plainNumber).join(', ');
function doneBy({ change, shift }: Pull): string {
  const told = [
    Math.hypot(...change) > NOTHING ? `${plainNumber(Math.hypot(...change))} m/s² (${axes(change)})` : '',
    Math.hypot(...shift) > Math.max(NOTHING, BESIDE * Math.hypot(...change))
      ? `moves it ${plainNumber(Math.hypot(...shift))} m/s (${axes(shift)})`
      : '',
  ].filter(Boolean);
  return told.join(', ') || 'does nothing to it now';
}
function mute({ id, isShared, muted }: { id: string; isShared: boolean; muted: boolean }): void {
  store.change(muted ? 'unmute a force' : 'mute a force', (draft) => {
    const own = draft.layers.byId[ownerOf(draft, probe.layerId)]!.forces;
    (isShared ? draft.forces.byId[id]!.force : own.byId[id]!).muted = !muted;
  });
}
const seconds = computed(() => plainNumber(engine.state.sheetTime));
function walk(by: number): void {
  if (!census.value) return;
  const to = (Math.max(0, row.value) + by + census.value.rows) % Math.max(1, census.value.rows);
  probe.key = census.value.keys[to] ?? null;
}
const pick = () => pickOne(engine, probe);
function leave(): void {
  probe.key = null;
  probe.isPicking = null;
  store.page = 'layers';
}
</script>

<template>
  <h2 class="page-name">Under the glass</h2>
  <div class="page">
    <p v-if="probe.key === null">
      Stop at an instant, and press a particle on the stage, or a row of the table of the living.
      <Button type="link" @click="pick">Pick one on the stage</Button>
    </p>
    <template v-else>
      <p>
        One of {{ layer?.name ?? 'a layer that is gone' }}, at {{ seconds }} s, its key
        {{ probe.key.toString(16).padStart(8, '0') }}.
        <Button type="link" @click="pick">Pick another</Button>
        <Button type="link" title="The one born before it" @click="walk(-1)">Before it</Button>
        <Button type="link" title="The one born after it" @click="walk(1)">After it</Button>
      </p>
      <p v-if="row < 0" class="quiet">It does not live at this instant: go to one at which it does.</p>
      <dl v-else class="number" data-probe>
        <template v-for="each in rows" :key="each.id">
          <dt>{{ each.name }}</dt>
          <dd :data-value="each.id">{{ each.text }}</dd>
        </template>
      </dl>
      <h3>What acts on it</h3>
      <p v-if="forces.length === 0" class="quiet">No force: it goes as it was launched.</p>
      <p v-else-if="engine.state.isPlaying" class="quiet">Stop, and what each force does to it is worked out.</p>
      <ul v-if="forces.length" class="forces" :aria-busy="probe.pulls === null">
        <li v-for="force in forces" :key="`${force.isShared} ${force.id}`" :data-force="force.kind">
          <span class="kind" :class="{ muted: force.muted }">{{ force.kind }}</span>
          <span v-if="force.isShared" class="quiet">of the effect</span>
          <span v-if="force.pull" class="number">{{ doneBy(force.pull) }}</span>
          <Button type="link" @click="mute(force)">{{ force.muted ? 'Unmute' : 'Mute' }}</Button>
        </li>
      </ul>
    </template>
    <p><Button type="link" @click="leave">Put the glass away</Button></p>
  </div>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto auto auto auto;
  justify-content: space-between;
  gap: 2px 12px;
  margin: 0 0 8px;
  font-size: 13px;
}
dt {
  color: var(--soft);
}
dd {
  margin: 0;
}
.forces {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
}
.forces li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
  padding: 3px 0;
}
.kind {
  min-width: 76px;
}
.kind.muted {
  text-decoration: line-through;
}
</style>
