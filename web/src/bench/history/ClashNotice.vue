<script setup lang="ts">
import { changedLines, DocumentError, type Effect } from '@jinx/core/document';
import { merged, type Clash } from '@jinx/core/editing';
import { Button, message, Radio, Table } from 'ant-design-vue';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useEffectStore } from '../../stores/effect';
import { useSavingStore } from '../../stores/saving';
import { tell } from '../../tell';

/** What two people changed differently, side by side: of each it is chosen whose is kept. All else is merged already. */
const saving = useSavingStore();
const effects = useEffectStore();
const router = useRouter();
const nameOf = ({ path }: Clash) => path.join('.');
const clashes = computed<readonly Clash[]>(() => (saving.met && effects.effect ? saving.clashes() : []));
const mine = ref<ReadonlySet<string>>(new Set());
watch(
  () => saving.met,
  () => (mine.value = new Set()),
);

/** What a clash is about, as it is with theirs and with mine. */
function linesOf(clash: Clash): { what: string; theirs: string; mine: string }[] {
  const { document } = saving.met!.stand;
  const own = merged(document, clash.theirs, clash.mine, () => true).document as Effect;
  const lines = changedLines(document, own).map(({ heading, name, left, right }) => ({
    what: `${heading}: ${name}`,
    theirs: left ?? 'taken away',
    mine: right ?? 'taken away',
  }));
  const isShort = lines.length > 0 && lines.length <= MOST_LINES;
  return isShort ? lines : [{ what: whole(clash), theirs: 'as they left it', mine: 'as I left it' }];
}
const MOST_LINES = 4;
/** The name of what a clash is about, where it has one. */
function whole({ path }: Clash): string {
  const [part, , id] = path;
  const table = saving.met!.stand.document[part as 'layers'] as { byId?: Record<string, { name?: string }> };
  const own = effects.effect![part as 'layers'] as { byId?: Record<string, { name?: string }> };
  return table.byId?.[id!]?.name ?? own.byId?.[id!]?.name ?? path.join(' ');
}
const rows = computed(() => clashes.value.map((clash) => ({ clash, key: nameOf(clash), lines: linesOf(clash) })));
/** Their lines as rows of the table: the first of each has the choice for all of them. */
const lines = computed(() =>
  rows.value.flatMap(({ key, lines: own }) =>
    own.map((line, n) => ({ ...line, key: `${key} ${n}`, clash: key, isFirst: n === 0 })),
  ),
);
const COLUMNS = [
  { key: 'what', title: 'What' },
  { key: 'theirs', title: 'Theirs' },
  { key: 'mine', title: 'Mine' },
];
const who = computed(() => saving.met?.by.filter(Boolean).join(', ') || 'Somebody else');

function pick(key: string, isMine: boolean): void {
  const chosen = new Set(mine.value);
  if (isMine) chosen.add(key);
  else chosen.delete(key);
  mine.value = chosen;
}
async function attempt(work: () => Promise<unknown>): Promise<void> {
  try {
    await work();
  } catch (error) {
    if (error instanceof DocumentError)
      void message.error(
        `That does not go together: ${error.message}. Choose otherwise, or keep yours as a copy.`,
        8,
      );
    else tell(error);
  }
}
const keepChosen = () => attempt(() => saving.choose((clash) => mine.value.has(nameOf(clash))));
const keepAllMine = () => attempt(() => saving.choose(() => true));
const keepTheirs = () => attempt(() => saving.takeTheirs());
const keepCopy = () =>
  attempt(async () => {
    await router.push(`/effects/${await saving.keepMineAsCopy()}`);
  });
</script>

<template>
  <section v-if="saving.met" class="notice" role="alertdialog" aria-label="Changed by two">
    <p>
      <b>{{ who }} changed the same as you.</b>
      {{ rows.length ? 'Choose whose to keep; all else of both is kept.' : saving.sentence }}
      Your own state goes into the tray before it is given up.
    </p>
    <Table
      v-if="rows.length"
      :columns="COLUMNS"
      :data-source="lines"
      row-key="key"
      size="small"
      :pagination="false"
      class="clashes"
    >
      <template #bodyCell="{ column, record }">
        <Radio
          v-if="column.key !== 'what' && record.isFirst"
          :checked="mine.has(record.clash) === (column.key === 'mine')"
          :name="record.clash"
          :aria-label="`${column.key}: ${record.what}`"
          @change="pick(record.clash, column.key === 'mine')"
          >{{ record[column.key as 'mine'] }}</Radio
        >
        <template v-else>{{ record[column.key as 'mine'] }}</template>
      </template>
    </Table>
    <div class="acts">
      <Button v-if="rows.length" type="primary" @click="keepChosen">Go on with what is chosen</Button>
      <Button type="link" @click="keepAllMine">All mine</Button>
      <Button type="link" @click="keepTheirs">All theirs</Button>
      <Button type="link" @click="keepCopy">Keep mine as a copy</Button>
    </div>
  </section>
</template>

<style scoped>
.notice {
  position: fixed;
  top: 46px;
  left: 50%;
  transform: translateX(-50%);
  z-index: 40;
  width: min(760px, calc(100vw - 40px));
  max-height: calc(100vh - 90px);
  overflow-y: auto;
  background: #232326;
  border: 1px solid var(--warn);
  border-radius: 4px;
  padding: 10px 16px;
}
.notice p {
  margin: 0 0 8px;
}
.clashes {
  margin-bottom: 10px;
}
.acts {
  display: flex;
  gap: 12px;
  align-items: center;
}
</style>
