<script setup lang="ts">
import { Button, Input } from 'ant-design-vue';
import { onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { api, type EffectSummary, type ProjectSummary } from '../api';
import { tell, tellDeleted } from '../tell';
import BringBack from './BringBack.vue';
import DeleteButton from './DeleteButton.vue';
import EffectCard from './EffectCard.vue';
import HomeTop from './HomeTop.vue';
import { usePictures } from './pictures';

/** Every project with its effects. */
const router = useRouter();
const projects = ref<(ProjectSummary & { list: EffectSummary[] })[]>([]);
const name = ref('');
const hasLoaded = ref(false);
const { pictures, makePictures } = usePictures();

async function load(): Promise<void> {
  try {
    const found = await api.projects();
    projects.value = await Promise.all(
      found.map(async (project) => ({ ...project, list: (await api.project(project.id)).effects })),
    );
    hasLoaded.value = true;
    void makePictures(projects.value.flatMap(({ list }) => list));
  } catch (error) {
    tell(error);
  }
}
async function add(): Promise<void> {
  if (!name.value.trim()) return;
  try {
    const { id } = await api.addProject(name.value.trim());
    await router.push(`/projects/${id}`);
  } catch (error) {
    tell(error);
  }
}
async function remove({ id, name: gone }: ProjectSummary): Promise<void> {
  try {
    await api.deleteProject(id);
    await load();
    tellDeleted(gone);
  } catch (error) {
    tell(error);
  }
}
onMounted(load);
</script>

<template>
  <HomeTop />
  <main class="home">
    <h1>Projects</h1>
    <p class="quiet">A project is a game’s kit: its figures, and the effects made for them.</p>
    <section v-for="project in projects" :key="project.id" class="project">
      <h2>
        <RouterLink :to="`/projects/${project.id}`">{{ project.name }}</RouterLink>
      </h2>
      <div class="effects">
        <EffectCard
          v-for="effect in project.list"
          :key="effect.id"
          :effect="effect"
          :picture="pictures.get(effect.id)"
        />
        <RouterLink v-if="project.list.length === 0" class="quiet" :to="`/projects/${project.id}`"
          >No effects yet: open it to make the first</RouterLink
        >
      </div>
      <DeleteButton :name="project.name" :along="`its ${project.effects} effects`" @delete="remove(project)" />
    </section>
    <form class="new" @submit.prevent="add">
      <Input
        v-model:value="name"
        placeholder="Name of a new project"
        aria-label="Name of a new project"
        :maxlength="80"
      />
      <Button html-type="submit" type="primary" :disabled="!name.trim()">Make project</Button>
    </form>
    <BringBack v-if="hasLoaded" :of="projects" @back="load" />
    <p v-if="hasLoaded && projects.length === 0" class="quiet">
      Nothing here yet. Name a project above and make it; its first effect is one step further.
    </p>
  </main>
</template>

<style scoped src="./home.css"></style>
