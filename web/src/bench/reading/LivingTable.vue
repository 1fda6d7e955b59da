<script setup lang="ts">
import ChoiceChip from '../chips/ChoiceChip.vue';
import { censusText } from '@jinx/core/simulation';
import { useStorage, useVirtualList } from '@vueuse/core';
import { Button, Checkbox, Input, message, Popover, Table, type TableProps } from 'ant-design-vue';
import { computed, h, inject, reactive } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { countText, readNumber } from '../entry/numbers';
import Refusal from '../Refusal.vue';
import { saveText } from '../files';
import LivingRows from './LivingRows.vue';
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
/** The rows that are in sight stand under the library's header in place of its own. */
const Rows = () =>
  h(LivingRows, {
    census: census.value!,
    rows: list.value.map(({ data }) => data),
    columns: shownColumns.value,
    above: (list.value[0]?.index ?? 0) * ROW,
    below: (rows.value.length - 1 - (list.value.at(-1)?.index ?? -1)) * ROW,
    height: ROW,
    onChoose: choose,
  });
/** Columns that are put away, in every effect. */
const putAway = useStorage<string[]>('jinx living columns put away', []);
const shownIds = computed({
  get: () => columns.value.map(({ id }) => id).filter((id) => !putAway.value.includes(id)),
  set: (ids) => (putAway.value = columns.value.map(({ id }) => id).filter((id) => !ids.includes(id))),
});
/** Where in a row of the census the shown columns stand. */
const shownColumns = computed(() =>
  shownIds.value.map((id) => columns.value.findIndex((column) => column.id === id)),
);
const heads = computed(() =>
  shownColumns.value.map((n) => {
    const { id, name, unit } = columns.value[n]!;
    return {
      key: id,
      title: `${unit ? `${name} ${unit}` : name}${wanted.by !== id ? '' : wanted.isDown ? ' ▾' : ' ▴'}`,
      align: 'right' as const,
      sorter: true,
      sortOrder: wanted.by !== id ? null : wanted.isDown ? ('descend' as const) : ('ascend' as const),
    };
  }),
);
type Sorted = Parameters<NonNullable<TableProps['onChange']>>[2];
function sort(sorter: Sorted): void {
  const id = String([sorter].flat()[0]!.columnKey);
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
  [probe.layerId, probe.key] = [store.chosenId, census.value!.keys[row]!];
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
const columnBoxes = computed(() => columns.value.map(({ id, name }) => ({ value: id, label: name })));
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
          ><Input class="bound" aria-label="at least" @input="bound('least', $event)" /></Refusal
      ></label>
      <label
        >and at most
        <Refusal :problem="problems.most"
          ><Input class="bound" aria-label="at most" @input="bound('most', $event)" /></Refusal
      ></label>
      <span class="space"></span>
      <Popover trigger="click" placement="topRight">
        <template #content>
          <Checkbox.Group v-model:value="shownIds" class="boxes" :options="columnBoxes" />
        </template>
        <Button type="link">Columns</Button>
      </Popover>
      <Button type="link" :disabled="!rows.length" @click="copy">Copy</Button>
      <Button type="link" :disabled="!rows.length" @click="save">Save as CSV</Button>
    </div>
    <p v-if="store.chosen && census?.rows === 0" class="quiet empty">
      None of {{ store.chosen.name }} lives now. Go to an instant at which some do: drag along the time sheet, or
      play.
    </p>
    <div v-else class="sheet" v-bind="containerProps" tabindex="0" aria-label="Rows">
      <Table
        :columns="heads"
        :data-source="[]"
        :components="{ body: { wrapper: Rows } }"
        size="small"
        :pagination="false"
        :show-sorter-tooltip="false"
        @change="(_page, _filters, sorter) => sort(sorter)"
      />
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
.bound {
  width: 64px;
}
.boxes {
  display: grid;
  grid-template-columns: repeat(3, auto);
  gap: 4px 12px;
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
.sheet :deep(th) {
  position: sticky;
  top: 0;
  z-index: 1;
  white-space: nowrap;
}
.sheet :deep(.ant-table-column-sorter) {
  display: none;
}
</style>
