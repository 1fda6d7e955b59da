<script setup lang="ts">
import ChoiceChip from '../chips/ChoiceChip.vue';
import { censusText } from '@jinx/core/simulation';
import { useVirtualList } from '@vueuse/core';
import { message } from 'ant-design-vue';
import { computed, inject, reactive } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { countText, plainNumber, readNumber } from '../entry/numbers';
import Refusal from '../Refusal.vue';
import { saveText } from '../files';
import { useProbe } from './probe';
import { rowsWanted, type Wanted } from './rows';
import { useCensus } from './useCensus';

/** All the living of the chosen layer, a row each: sorted, filtered, copied, saved. A row that is pressed goes under the glass. */
const store = useEffectStore();
const engine = inject(ENGINE)!;
const probe = useProbe();
const census = useCensus(engine, () => store.chosenId);
const wanted = reactive<{ -readonly [K in keyof Wanted]: Wanted[K] }>({
  by: 'number',
  isDown: false,
  where: 'age',
  least: null,
  most: null,
});
const ROW = 22;
const columns = computed(() => census.value?.columns ?? []);
const rows = computed(() => (census.value ? rowsWanted(census.value, wanted) : []));
const { list, containerProps } = useVirtualList(rows, { itemHeight: ROW, overscan: 8 });
/** Height of the rows that are scrolled away, above and below. */
const above = computed(() => (list.value[0]?.index ?? 0) * ROW);
const below = computed(() => (rows.value.length - 1 - (list.value.at(-1)?.index ?? -1)) * ROW);
const cell = (row: number, n: number) => plainNumber(census.value!.values[row * columns.value.length + n]!);
const keyOf = (row: number) => census.value!.keys[row]!;
function sort(id: string): void {
  if (wanted.by === id) wanted.isDown = !wanted.isDown;
  else [wanted.by, wanted.isDown] = [id, false];
}
/** Why a bound is not taken, while it is not. */
const problems = reactive({ least: '', most: '' });
function bound(which: 'least' | 'most', event: Event): void {
  const text = (event.target as HTMLInputElement).value;
  const { unit = '' } = columns.value.find(({ id }) => id === wanted.where) ?? {};
  try {
    wanted[which] = text.trim() === '' ? null : readNumber(text, { unit });
    problems[which] = '';
  } catch (error) {
    wanted[which] = null;
    problems[which] = (error as Error).message;
  }
}
function choose(row: number): void {
  [probe.layerId, probe.key] = [store.chosenId, keyOf(row)];
  store.page = 'probe';
}
const text = () => censusText(census.value!, rows.value);
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(text());
  void message.info(`${rows.value.length} rows were copied.`);
}
const save = () =>
  saveText(`${store.effect!.name}, ${store.chosen!.name}, step ${census.value!.step}.csv`, text(), 'text/csv');
const columnChoices = computed(() => columns.value.map(({ id, name }) => ({ value: id, text: name })));
const sortOf = (id: string) => (wanted.by !== id ? 'none' : wanted.isDown ? 'descending' : 'ascending');
</script>

<template>
  <section class="living" aria-label="All the living">
    <div class="bar">
      <strong>{{ store.chosen?.name ?? 'No layer' }}</strong>
      <span class="quiet number" data-shown
        >{{ countText(rows.length) }} of {{ countText(census?.rows ?? 0) }} living</span
      >
      <label
        >where
        <ChoiceChip
          :value="wanted.where"
          :choices="columnChoices"
          label="column to look at"
          @choose="wanted.where = $event"
      /></label>
      <label
        >is at least
        <Refusal :problem="problems.least"
          ><input class="chip" size="6" aria-label="at least" @input="bound('least', $event)" /></Refusal
      ></label>
      <label
        >and at most
        <Refusal :problem="problems.most"
          ><input class="chip" size="6" aria-label="at most" @input="bound('most', $event)" /></Refusal
      ></label>
      <span class="space"></span>
      <button type="button" class="plain act" :disabled="!rows.length" @click="copy">Copy</button>
      <button type="button" class="plain act" :disabled="!rows.length" @click="save">Save as CSV</button>
    </div>
    <p v-if="store.chosen && census?.rows === 0" class="quiet empty">
      None of {{ store.chosen.name }} lives now. Go to an instant at which some do: drag along the time sheet, or
      play.
    </p>
    <div v-else class="sheet" v-bind="containerProps" tabindex="0" aria-label="Rows">
      <table>
        <thead>
          <tr>
            <th v-for="column in columns" :key="column.id" :aria-sort="sortOf(column.id)">
              <button type="button" class="plain" @click="sort(column.id)">
                {{ column.name }}<small v-if="column.unit">&nbsp;{{ column.unit }}</small
                >{{ wanted.by === column.id ? (wanted.isDown ? ' ▾' : ' ▴') : '' }}
              </button>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr aria-hidden="true" :style="{ height: `${above}px` }"></tr>
          <tr
            v-for="{ data: row } in list"
            :key="keyOf(row)"
            tabindex="0"
            :class="{ on: probe.key === keyOf(row) }"
            :style="{ height: `${ROW}px` }"
            title="Put it under the glass"
            @click="choose(row)"
            @keydown.enter="choose(row)"
          >
            <td v-for="(column, n) in columns" :key="column.id" class="number">{{ cell(row, n) }}</td>
          </tr>
          <tr aria-hidden="true" :style="{ height: `${below}px` }"></tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.living {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: #161617;
}
.bar {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 4px 12px;
  border-bottom: 1px solid var(--rule);
}
.bar input {
  cursor: text;
}
.space {
  flex: 1;
}
.empty {
  padding: 8px 12px;
}
.sheet {
  flex: 1;
  min-height: 0;
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 12.5px;
}
th {
  position: sticky;
  top: 0;
  background: #1d1d1f;
  text-align: right;
  font-weight: 400;
  padding: 2px 6px;
}
small {
  color: var(--dim);
}
td {
  text-align: right;
  padding: 0 8px;
}
tbody tr {
  cursor: pointer;
}
tbody tr:hover {
  background: #232326;
}
tr.on {
  background: #2b2b2f;
  box-shadow: inset 2px 0 0 var(--accent);
}
</style>
