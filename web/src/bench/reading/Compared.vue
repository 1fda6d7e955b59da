<script setup lang="ts">
import { differencesOf, sectionsOf, wordsOf, type Effect } from '@jinx/core/document';
import { takable, takeLine } from '@jinx/core/editing';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { api, type EffectSummary } from '../../api';
import { useEffectStore } from '../../stores/effect';
import { tell } from '../../tell';

/** What is not the same in another effect of the project, line by line; each can be taken over from there. */
const store = useEffectStore();
const effects = shallowRef<readonly EffectSummary[]>([]);
const otherId = ref('');
const other = shallowRef<Effect | null>(null);
onMounted(async () => {
  try {
    effects.value = (await api.project(store.projectId)).effects.filter(({ id }) => id !== store.id);
  } catch (error) {
    tell(error);
  }
});
async function choose(id: string): Promise<void> {
  otherId.value = id;
  other.value = null;
  if (id === '') return;
  try {
    const { document } = await api.effect(id);
    if (otherId.value === id) other.value = document;
  } catch (error) {
    tell(error);
  }
}
const differences = computed(() => (other.value ? differencesOf(wordsOf(store.effect!), wordsOf(other.value)) : []));
const sections = computed(() => sectionsOf(differences.value));
const canBeTaken = computed(() => (other.value ? takable(store.effect!, other.value) : new Set<string>()));
const take = (id: string, name: string) =>
  store.change(`take ${name} from ${other.value!.name}`, (draft) => void takeLine(draft, other.value!, id));
</script>

<template>
  <section class="compared" aria-label="Compared with another effect">
    <div class="bar">
      <label
        >{{ store.effect!.name }} beside
        <select
          class="chip"
          :value="otherId"
          aria-label="effect to compare with"
          @change="choose(($event.target as HTMLSelectElement).value)"
        >
          <option value="">another effect…</option>
          <option v-for="effect in effects" :key="effect.id" :value="effect.id">{{ effect.name }}</option>
        </select></label
      >
      <span v-if="other" class="quiet number" role="status">{{
        differences.length === 0
          ? 'the same throughout'
          : `${differences.length} ${differences.length === 1 ? 'difference' : 'differences'}`
      }}</span>
    </div>
    <div class="page" tabindex="0" aria-label="Differences">
      <p v-if="!otherId" class="quiet">
        Choose another effect of the project: what is not the same is told line by line, and can be taken over from
        there.
      </p>
      <table v-else-if="other && differences.length">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">{{ store.effect!.name }}</th>
            <th scope="col">{{ other.name }}</th>
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
                :aria-label="`Take ${line.name} of ${section.heading} from ${other.name}`"
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
