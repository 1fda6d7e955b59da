<script setup lang="ts">
import { forcesOn } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { plainNumber } from '../format';
import { cellOf, pickOne, rowOf, useProbe } from './probe';
import { useCensus } from './useCensus';

/** One particle under the glass: all it carries, and what acts on it. */
const store = useEffectStore();
const engine = inject(ENGINE)!;
const probe = useProbe();
const census = useCensus(engine, () => probe.layerId);
const row = computed(() => (census.value ? rowOf(census.value, probe.key) : -1));
const layer = computed(() => store.effect!.layers.byId[probe.layerId]);
const rows = computed(() =>
  census.value && row.value >= 0
    ? census.value.columns.map(({ id, name, unit }) => ({
        id,
        name,
        text: `${plainNumber(cellOf(census.value!, row.value, id))}${unit && ` ${unit}`}`,
      }))
    : [],
);
const forces = computed(() =>
  layer.value
    ? forcesOn(store.effect!, probe.layerId).map(({ id, item, isShared }) => ({
        id,
        words: `${item.kind}${isShared ? ', of the effect' : ''}${item.muted ? ', muted' : ''}`,
      }))
    : [],
);
const seconds = computed(() => plainNumber(engine.state.sheetTime));
function walk(by: number): void {
  if (!census.value) return;
  const to = (Math.max(0, row.value) + by + census.value.rows) % Math.max(1, census.value.rows);
  probe.key = census.value.keys[to] ?? null;
}
const pick = () => pickOne(engine, probe);
function leave(): void {
  probe.key = null;
  probe.isPicking = false;
  store.page = 'layers';
}
</script>

<template>
  <h2 class="page-name">Under the glass</h2>
  <div class="page">
    <p v-if="probe.key === null">
      Stop at an instant, and press a particle on the stage, or a row of the table of the living.
      <button type="button" class="plain act" @click="pick">Pick one on the stage</button>
    </p>
    <template v-else>
      <p>
        One of {{ layer?.name ?? 'a layer that is gone' }}, at {{ seconds }} s, its key
        {{ probe.key.toString(16).padStart(8, '0') }}.
        <button type="button" class="plain act" @click="pick">Pick another</button>
        <button type="button" class="plain act" title="The one born before it" @click="walk(-1)">Before it</button>
        <button type="button" class="plain act" title="The one born after it" @click="walk(1)">After it</button>
      </p>
      <p v-if="row < 0" class="quiet">It does not live at this instant: go to one at which it does.</p>
      <dl v-else class="number" data-probe>
        <template v-for="each in rows" :key="each.id">
          <dt>{{ each.name }}</dt>
          <dd :data-value="each.id">{{ each.text }}</dd>
        </template>
      </dl>
      <h3>What may act on it</h3>
      <p v-if="forces.length === 0" class="quiet">No force: it goes as it was launched.</p>
      <p v-for="force in forces" :key="force.id">{{ force.words }}</p>
    </template>
    <p><button type="button" class="plain act" @click="leave">Put the glass away</button></p>
  </div>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr auto 1fr;
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
</style>
