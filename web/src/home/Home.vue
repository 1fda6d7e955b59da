<script setup lang="ts">
import { refDebounced, useTimeout } from '@vueuse/core';
import { Button, Empty, Input, Skeleton } from 'ant-design-vue';
import { ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api, type ProjectSummary } from '../api';
import { tell, tellDeleted } from '../tell';
import { useThumbnails } from '../thumbnails/useThumbnails';
import BringBack from './BringBack.vue';
import DeleteButton from './DeleteButton.vue';
import EffectCard from './EffectCard.vue';
import HomeTop from './HomeTop.vue';

/** Every project with the effects that were worked on last. */
const TYPING_MILLISECONDS = 180;
/** Lines that stand for the list come only where it is late. */
const SOON_MILLISECONDS = 300;
const isLate = useTimeout(SOON_MILLISECONDS);
const router = useRouter();
const projects = shallowRef<readonly ProjectSummary[] | null>(null);
const name = ref('');
const find = ref('');
const sought = refDebounced(find, TYPING_MILLISECONDS);
const { made, makeOfEffects } = useThumbnails();

let asked = 0;
async function load(): Promise<void> {
  const mine = ++asked;
  try {
    const found = await api.projects(sought.value.trim());
    // A later question's answer is not overwritten by an earlier one's.
    if (mine !== asked) return;
    projects.value = found;
    void makeOfEffects(found.flatMap(({ recent }) => recent));
  } catch (error) {
    tell(error);
  }
}
watch(sought, load);
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
void load();
</script>

<template>
  <HomeTop />
  <main class="home" data-guide="bench#projects">
    <div class="heading">
      <h1>Projects</h1>
      <Input
        v-model:value="find"
        type="search"
        class="find"
        placeholder="Find a project or an effect"
        aria-label="Find a project or an effect"
        allow-clear
        :maxlength="80"
      />
      <form class="new" @submit.prevent="add">
        <Input
          v-model:value="name"
          placeholder="Name of a new project"
          aria-label="Name of a new project"
          :maxlength="80"
        />
        <Button html-type="submit" type="primary" :disabled="!name.trim()">Make project</Button>
      </form>
    </div>
    <Skeleton v-if="projects === null && isLate" class="waits" :paragraph="{ rows: 5 }" />
    <section v-for="project in projects" :key="project.id" class="project">
      <div class="heading">
        <h2>
          <RouterLink :to="`/projects/${project.id}`">{{ project.name }}</RouterLink>
        </h2>
        <span class="quiet">{{ project.effects === 1 ? '1 effect' : `${project.effects} effects` }}</span>
        <span class="space"></span>
        <DeleteButton :name="project.name" :along="`its ${project.effects} effects`" @delete="remove(project)" />
      </div>
      <div class="grid">
        <EffectCard
          v-for="effect in project.recent"
          :key="effect.id"
          :effect="effect"
          :picture="made.get(effect.id)"
        />
      </div>
      <RouterLink v-if="project.effects === 0" :to="`/projects/${project.id}`">
        No effects yet: open it to make the first
      </RouterLink>
      <RouterLink v-else-if="project.effects > project.recent.length" :to="`/projects/${project.id}`">
        All {{ project.effects }} effects
      </RouterLink>
    </section>
    <Empty v-if="projects?.length === 0 && sought.trim()" :description="`Nothing is called “${sought.trim()}”.`" />
    <Empty v-else-if="projects?.length === 0">
      <template #description>
        Nothing here yet. A project is a game’s kit: its figures, and the effects made for them. Name one above and
        make it; its first effect is one step further.
      </template>
    </Empty>
    <BringBack v-if="projects" :of="projects" @back="load" />
  </main>
</template>

<style scoped src="./home.css"></style>
