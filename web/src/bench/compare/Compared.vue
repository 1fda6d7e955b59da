<script setup lang="ts">
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
const PICTURES: readonly { readonly value: Pictures; readonly text: string; readonly title: string }[] = [
  { value: 'one', text: 'this one', title: 'Only the effect on the bench' },
  { value: 'beside', text: 'side by side', title: 'Both, of one instant, from one place' },
  { value: 'wipe', text: 'one over the other', title: 'The other laid over, up to a border that can be dragged' },
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
const sections = computed(() => sectionsOf(differences.value));
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
      <div v-if="other" role="group" aria-label="Pictures">
        <button
          v-for="{ value, text, title } in PICTURES"
          :key="value"
          type="button"
          class="plain"
          :class="{ on: pictures === value }"
          :aria-pressed="pictures === value"
          :title="title"
          @click="pictures = value"
        >
          {{ text }}
        </button>
      </div>
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
      <table v-else-if="other && differences.length">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">{{ store.effect!.name }}</th>
            <th scope="col">{{ name }}</th>
            <th scope="col"><span class="unseen">Take it over</span></th>
          </tr>
        </thead>
        <tbody v-for="section in sections" :key="section.heading">
          <tr>
            <th colspan="4" scope="rowgroup">{{ section.heading }}</th>
          </tr>
          <tr v-for="line in section.lines" :key="line.id">
            <td class="quiet">{{ line.name }}</td>
            <td>{{ line.left ?? '–' }}</td>
            <td>{{ line.right ?? '–' }}</td>
            <td>
              <button
                v-if="canBeTaken.has(line.id)"
                type="button"
                class="plain act"
                :aria-label="`Take ${line.name} of ${section.heading} from ${name}`"
                @click="take(line.id, line.name)"
              >
                Take it
              </button>
            </td>
          </tr>
        </tbody>
      </table>
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
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 13px;
}
th {
  text-align: left;
  padding: 6px 12px 2px 0;
}
td {
  padding: 1px 12px 1px 0;
  vertical-align: top;
  overflow-wrap: anywhere;
}
td:nth-child(2),
td:nth-child(3) {
  width: 36%;
}
.unseen {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
</style>
