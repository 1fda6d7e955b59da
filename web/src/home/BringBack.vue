<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { shallowRef, watch } from 'vue';
import { api } from '../api';
import { tell } from '../tell';
import { when } from '../when';

/** What was deleted in the last thirty days, to be brought back: projects, or what is in one. */
const props = defineProps<{ projectId?: string; /** Whenever this changes it is asked anew. */ of: unknown }>();
const emit = defineEmits<{ back: [] }>();
interface Line {
  readonly key: string;
  readonly name: string;
  readonly what: string;
  readonly deletedAt: string;
  readonly bring: () => Promise<unknown>;
}
const lines = shallowRef<readonly Line[]>([]);

async function inProject(projectId: string): Promise<Line[]> {
  const { effects, assets } = await api.deleted(projectId);
  return [
    ...effects.map(({ id, name, deletedAt }) => ({
      ...{ key: id, name, what: 'effect', deletedAt },
      bring: () => api.restoreEffect(id),
    })),
    ...assets.map(({ hash, name, kind, deletedAt }) => ({
      ...{ key: hash, name, what: kind === 'rig' ? 'figure' : 'picture', deletedAt },
      bring: () => api.restoreAsset(projectId, hash),
    })),
  ];
}
const projects = async (): Promise<Line[]> =>
  (await api.deletedProjects()).map(({ id, name, deletedAt }) => ({
    ...{ key: id, name, what: 'project', deletedAt },
    bring: () => api.restoreProject(id),
  }));

async function attempt(work: () => Promise<unknown>): Promise<void> {
  try {
    await work();
  } catch (error) {
    tell(error);
  }
}
watch(
  () => props.of,
  () =>
    attempt(async () => {
      lines.value = await (props.projectId ? inProject(props.projectId) : projects());
    }),
  { immediate: true },
);
const bring = (line: Line) =>
  attempt(async () => {
    await line.bring();
    emit('back');
  });
</script>

<template>
  <section v-if="lines.length">
    <h2>Deleted in the last 30 days</h2>
    <ul class="list" aria-label="Deleted">
      <li v-for="line in lines" :key="line.key">
        <span>{{ line.name }}</span>
        <span class="quiet number">{{ line.what }}, deleted {{ when(line.deletedAt) }}</span>
        <Button type="link" :aria-label="`Bring back ${line.name}`" @click="bring(line)"> Bring back </Button>
      </li>
    </ul>
  </section>
</template>

<style scoped src="./home.css"></style>
