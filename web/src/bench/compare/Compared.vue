<script setup lang="ts">
import { Button, Segmented, Table } from 'ant-design-vue';
import ChoiceChip from '../chips/ChoiceChip.vue';
import { differencesOf, sectionsOf, wordsOf } from '@jinx/core/document';
import { takable, takeLine } from '@jinx/core/editing';
import { computed, onMounted, shallowRef } from 'vue';
import { api, type EffectSummary, type KeptState, type Revision } from '../../api';
import type { View } from '@jinx/player/scene';
import { useEffectStore } from '../../stores/effect';
import { tell } from '../../tell';
import { when } from '../../when';
import { chosenOther, revisionChoice, stateChoice } from './choice';
import { useOther, type Pictures } from './other';
import SiblingWall from './SiblingWall.vue';

/** What is not the same in another effect, line by line, and in pictures; each line can be taken over from there. */
defineProps<{ view: View; budget: number }>();
const store = useEffectStore();
const { choice, effect: other, name, pictures } = useOther();
const effects = shallowRef<readonly EffectSummary[]>([]);
const PICTURES: { value: Pictures; label: string; title: string }[] = [
  { value: 'one', label: 'this one', title: 'Only the effect on the bench' },
  { value: 'beside', label: 'side by side', title: 'Both, of one instant, from one place' },
  { value: 'wipe', label: 'one over the other', title: 'The other laid over, up to a border that can be dragged' },
];
const revisions = shallowRef<readonly Revision[]>([]);
const states = shallowRef<readonly KeptState[]>([]);
onMounted(async () => {
  if (choice.value && !other.value) void load(choice.value);
  try {
    const [project, kept, tray] = await Promise.all([
      api.project(store.projectId),
      api.revisions(store.id),
      api.tray(store.id),
    ]);
    effects.value = project.effects.filter(({ id }) => id !== store.id);
    [revisions.value, states.value] = [kept, tray];
  } catch (error) {
    tell(error);
  }
});
/** Whom it hangs together with comes first. */
const kin = computed(() => {
  const { siblingOf, siblings } = store.kin;
  return [...(siblingOf ? [siblingOf] : []), ...siblings];
});
const strangers = computed(() => effects.value.filter(({ id }) => !kin.value.some((one) => one.id === id)));
const choices = computed(() => [
  { value: '', text: 'another effect…' },
  { value: 'opened', text: 'itself, as it was opened' },
  { value: 'now', text: 'itself, as it is now' },
  ...kin.value.map(({ id, name: text }) => ({ value: id, text, group: 'siblings' })),
  ...revisions.value.map(({ revision, savedAt, name: called }) => ({
    value: revisionChoice(revision),
    text: `${called ?? when(savedAt)}, revision ${revision}`,
    group: 'itself, as it was saved',
  })),
  ...states.value.map(({ id, name: text, keptAt }) => ({
    value: stateChoice(id),
    text: `${text}, ${when(keptAt)}`,
    group: 'itself, as it was put by',
  })),
  ...strangers.value.map(({ id, name: text }) => ({ value: id, text, group: 'others of the project' })),
]);
async function load(of: string): Promise<void> {
  choice.value = of;
  other.value = null;
  if (of === '') return void (pictures.value = 'one');
  try {
    const found = await chosenOther(of, store);
    if (choice.value === of) [other.value, name.value] = [found.document, found.name];
  } catch (error) {
    tell(error);
  }
}
const differences = computed(() => (other.value ? differencesOf(wordsOf(store.effect!), wordsOf(other.value)) : []));
/** The differences as rows of a table, under the headings of what they are about. */
interface Row {
  readonly key: string;
  readonly heading?: string;
  readonly line?: (typeof differences.value)[number];
}
const rows = computed((): Row[] =>
  sectionsOf(differences.value).flatMap(({ heading, lines }) => [
    { key: `heading ${heading}`, heading },
    ...lines.map((line) => ({ key: line.id, line })),
  ]),
);
const wide = ({ heading }: Row) => ({ colSpan: heading === undefined ? 1 : 4 });
const covered = ({ heading }: Row) => ({ colSpan: heading === undefined ? 1 : 0 });
const columns = computed(() => [
  { key: 'name', title: 'What', customCell: wide },
  { key: 'left', title: store.effect!.name, width: '36%', customCell: covered },
  { key: 'right', title: name.value, width: '36%', customCell: covered },
  { key: 'take', title: 'Take it over', customCell: covered },
]);
const canBeTaken = computed(() => (other.value ? takable(store.effect!, other.value) : new Set<string>()));
const take = (id: string, what: string) =>
  store.change(`take ${what} from ${name.value}`, (draft) => void takeLine(draft, other.value!, id));
</script>

<template>
  <section class="compared" aria-label="Compared with another effect">
    <div class="bar">
      <label
        >{{ store.effect!.name }} beside
        <ChoiceChip :value="choice" :choices="choices" label="effect to compare with" @choose="load"
      /></label>
      <Segmented v-if="other" v-model:value="pictures" :options="PICTURES" aria-label="Pictures" />
      <span v-if="other" class="quiet number" role="status">{{
        differences.length === 0
          ? 'the same throughout'
          : `${differences.length} ${differences.length === 1 ? 'difference' : 'differences'}`
      }}</span>
    </div>
    <div class="page" role="region" tabindex="0" aria-label="Differences">
      <SiblingWall v-if="!choice && kin.length" :view="view" :budget="budget" @choose="load" />
      <p v-else-if="!choice" class="quiet">
        Choose another effect of the project, or this one as it was or is: what is not the same is told line by line,
        can be taken over from there, and is seen in pictures of one instant.
      </p>
      <Table
        v-else-if="other && differences.length"
        :columns="columns"
        :data-source="rows"
        row-key="key"
        size="small"
        :pagination="false"
      >
        <template #bodyCell="{ column, record }">
          <strong v-if="record.heading && column.key === 'name'">{{ record.heading }}</strong>
          <Button
            v-else-if="column.key === 'take' && record.line && canBeTaken.has(record.line.id)"
            type="link"
            :aria-label="`Take ${record.line.name} of ${record.line.heading} from ${name}`"
            @click="take(record.line.id, record.line.name)"
          >
            Take it
          </Button>
          <template v-else-if="record.line && column.key !== 'take'">{{
            record.line[column.key as 'left'] ?? '–'
          }}</template>
        </template>
      </Table>
    </div>
  </section>
</template>

<style scoped>
.compared {
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
.page {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  padding: 6px 14px;
}
</style>
