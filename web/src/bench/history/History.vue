<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { computed, inject, onMounted, ref, shallowRef, watch } from 'vue';
import { api, type Revision } from '../../api';
import { useEffectStore } from '../../stores/effect';
import { useSavingStore } from '../../stores/saving';
import { tell } from '../../tell';
import { when } from '../../when';
import { BELOW } from '../bench';
import { revisionChoice } from '../compare/choice';
import { useOther } from '../compare/other';
import TextField from '../chips/TextField.vue';
import { sittingsOf } from './sittings';
import { stepsOf } from './steps';

/** What was done since the effect was opened, step by step, and how it was before, by sittings. */
const store = useEffectStore();
const saving = useSavingStore();
const below = inject(BELOW)!;
const { choice, effect: other } = useOther();
const FIRST_SHOWN = 120;
const shown = ref(FIRST_SHOWN);
const steps = computed(() => stepsOf(store.effect!, store.past, store.future, shown.value));
const isLong = computed(() => Math.max(store.past.length, store.future.length) > shown.value);

/** Goes to where the effect stood after a step. */
function goTo(back: number): void {
  for (let n = 1; n < back; n++) store.undo();
  for (let n = back; n <= 0; n++) store.redo();
}

const revisions = shallowRef<readonly Revision[]>([]);
const sittings = computed(() => sittingsOf(revisions.value));
async function load(): Promise<void> {
  try {
    revisions.value = await api.revisions(store.id);
  } catch (error) {
    tell(error);
  }
}
onMounted(load);
watch(
  () => saving.state,
  (state) => state === 'saved' && void load(),
);
const isNow = ({ revision }: Revision) => revision === revisions.value[0]?.revision;
async function rename({ revision }: Revision, text: string): Promise<void> {
  try {
    await api.nameRevision(store.id, revision, text.trim() || null);
    await load();
  } catch (error) {
    tell(error);
  }
}
function compare({ revision }: Revision): void {
  other.value = null;
  choice.value = revisionChoice(revision);
  below.value = 'compared';
}
async function restore({ revision }: Revision): Promise<void> {
  try {
    const { document } = await api.revision(store.id, revision);
    store.change(`restore revision ${revision}`, (draft) => Object.assign(draft, document));
  } catch (error) {
    tell(error);
  }
}
/** The two ends of a sitting, its day told once. */
function span(from: string, to: string): string {
  const [first, last] = [when(from), when(to)];
  if (first === last) return first;
  const [day, time] = last.split(', ');
  return first.startsWith(`${day},`) ? `${first} to ${time}` : `${first} to ${last}`;
}
</script>

<template>
  <section class="history" aria-label="History">
    <div class="column" role="region" tabindex="0" aria-label="Steps since it was opened">
      <h3>Since it was opened</h3>
      <p v-if="steps.length === 0" class="quiet">
        Nothing yet. Each change is listed here as it is made; pressing one goes back to it, or on.
      </p>
      <ol v-else class="steps">
        <li v-for="step in steps" :key="step.back">
          <Button
            type="text"
            class="step"
            :class="{ ahead: step.back <= 0, here: step.back === 1 }"
            :aria-current="step.back === 1 ? 'step' : undefined"
            :title="
              step.back <= 0 ? 'Undone: go on to here' : step.back === 1 ? 'Where it stands' : 'Go back to here'
            "
            @click="goTo(step.back)"
          >
            <span v-for="(line, n) in step.words" :key="n">{{ line }}</span>
          </Button>
        </li>
        <li>
          <Button
            type="text"
            class="step"
            :class="{ here: store.past.length === 0 }"
            :aria-current="store.past.length === 0 ? 'step' : undefined"
            @click="goTo(store.past.length + 1)"
          >
            as it was opened
          </Button>
        </li>
      </ol>
      <Button v-if="isLong" type="link" @click="shown = Infinity">Show all steps</Button>
    </div>
    <div class="column wide" role="region" tabindex="0" aria-label="Revisions">
      <h3>Revisions</h3>
      <p class="quiet">
        Kept every two minutes of work and before each pause. A name keeps one for good; restoring makes a new
        revision, and undo takes it back.
      </p>
      <section v-for="sitting in sittings" :key="sitting.to" class="sitting">
        <h4>
          {{ span(sitting.from, sitting.to) }}
          <span v-if="sitting.by.length" class="quiet">by {{ sitting.by.join(', ') }}</span>
        </h4>
        <ul>
          <li v-for="revision in sitting.revisions" :key="revision.revision">
            <span class="number quiet"
              >{{ when(revision.savedAt).split(', ')[1] }}, revision {{ revision.revision }}</span
            >
            <TextField
              class="name"
              :value="revision.name ?? ''"
              :aria-label="`name of revision ${revision.revision}`"
              placeholder="give it a name"
              maxlength="80"
              @commit="rename(revision, $event)"
            />
            <span class="labels" :title="revision.labels.join('\n')">{{ revision.labels.join('; ') }}</span>
            <span v-if="isNow(revision)" class="quiet">now</span>
            <span v-else>
              <Button type="link" @click="compare(revision)">Compare</Button>
              <Button type="link" @click="restore(revision)">Restore</Button>
            </span>
          </li>
        </ul>
      </section>
    </div>
  </section>
</template>

<style scoped>
.history {
  display: grid;
  grid-template-columns: minmax(260px, 2fr) 3fr;
  min-height: 0;
  background: #161617;
  font-size: 13px;
}
.column {
  min-height: 0;
  overflow-y: auto;
  padding: 8px 14px;
}
.wide {
  border-left: 1px solid var(--rule);
}
h3 {
  margin: 0 0 4px;
}
h4 {
  margin: 8px 0 2px;
  font-weight: 600;
}
.steps,
.sitting ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.step {
  display: block;
  width: 100%;
  text-align: left;
  border-left: 2px solid transparent;
  border-radius: 0;
  padding: 1px 6px;
}
.step span {
  display: block;
}
.step:hover {
  background: var(--chip);
}
.step.here {
  color: var(--ink);
  border-left-color: var(--accent);
}
.step.ahead {
  color: var(--dim);
  text-decoration: line-through;
}
.sitting li {
  display: grid;
  grid-template-columns: 112px minmax(90px, 150px) minmax(0, 1fr) auto;
  gap: 10px;
  align-items: baseline;
  padding: 1px 0;
}
.name {
  background: none;
  border: 0;
  border-bottom: 1px solid var(--rule);
  padding: 0 2px;
  min-width: 0;
}
.name::placeholder {
  color: var(--dim);
}
.labels {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
