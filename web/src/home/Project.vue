<script setup lang="ts">
import { newEffect } from '@jinx/core/document';
import { Button, Input, message, Skeleton } from 'ant-design-vue';
import { onMounted, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { api, ApiError, type AssetSummary, type EffectSummary, type ProjectDetail, type Start } from '../api';
import FilmDialog from '../film/FilmDialog.vue';
import HandOver from '../parcels/HandOver.vue';
import ParcelQuestion from '../parcels/ParcelQuestion.vue';
import { random32 } from '../stores/effect';
import { tellDeleted } from '../tell';
import BringBack from './BringBack.vue';
import EffectList from './EffectList.vue';
import FindInEffects from './FindInEffects.vue';
import HomeTop from './HomeTop.vue';
import Members from './Members.vue';
import ProjectFiles from './ProjectFiles.vue';
import StartingPoints from './StartingPoints.vue';
import { useThumbnails } from '../thumbnails/useThumbnails';
import { useIncoming } from './useIncoming';

/** One project: its effects, its figures, and what can be brought in. */
const props = defineProps<{ id: string }>();
const router = useRouter();
const project = shallowRef<ProjectDetail | null>(null);
const kit = shallowRef<readonly string[]>([]);
const name = ref('');
const busy = ref('');

async function attempt(what: string, work: () => Promise<void>): Promise<void> {
  busy.value = what;
  try {
    await work();
  } catch (error) {
    if (!(error instanceof ApiError)) throw error;
    void message.error(error.message, 8);
    if (error.status === 404) void router.replace('/');
  } finally {
    busy.value = '';
  }
}
const { made, makeOfEffects, makeOfAssets } = useThumbnails();
const load = () =>
  attempt('', async () => {
    const kitFiles = api.kit();
    project.value = await api.project(props.id);
    void makeOfAssets(props.id, project.value.assets);
    kit.value = await kitFiles;
  });
onMounted(load);

const make = () =>
  attempt('Making it…', async () => {
    const stored = await api.addEffect(props.id, newEffect(name.value.trim() || 'New effect', random32()));
    await router.push(`/effects/${stored.id}`);
  });
const begin = ({ id: start, intent }: Start) =>
  attempt(`Bringing in the ${intent.toLowerCase()}…`, async () => {
    const { id } = await api.begin(props.id, start, name.value.trim());
    await router.push(`/effects/${id}`);
  });
/** The effect that is handed over, while its parcel is looked through. */
const given = ref('');
/** The effect of which pictures are taken. */
const filmed = ref('');
function film(): void {
  [filmed.value, given.value] = [given.value, ''];
}
const remove = ({ id, name: gone }: EffectSummary) =>
  attempt('', async () => {
    await api.deleteEffect(id);
    await load();
    tellDeleted(gone);
  });
const bringKit = (file: string) =>
  attempt(`Taking in ${file}…`, async () => {
    await api.importKit(props.id, file);
    await load();
  });
const { asking, leave, bring, bringParcel, drop } = useIncoming(() => props.id, load);
const removeAsset = ({ hash }: AssetSummary) =>
  attempt('', async () => {
    await api.deleteAsset(props.id, hash);
    await load();
  });
</script>

<template>
  <HomeTop><RouterLink to="/" class="quiet">Projects</RouterLink></HomeTop>
  <main class="home" data-guide="bench#projects" @dragover.prevent @drop.prevent="drop">
    <Skeleton v-if="!project" class="waits" :paragraph="{ rows: 6 }" />
    <template v-else>
      <div class="heading">
        <h1>{{ project.name }}</h1>
        <form class="new" @submit.prevent="make">
          <Input
            v-model:value="name"
            placeholder="Name of a new effect"
            aria-label="Name of a new effect"
            :maxlength="80"
          />
          <Button html-type="submit" type="primary">Make effect</Button>
        </form>
        <span class="quiet" role="status">{{
          busy || 'Drop figures, pictures and parcels anywhere on this page.'
        }}</span>
      </div>
      <ParcelQuestion
        v-for="{ file, question } in asking"
        :key="file.name"
        :file="file.name"
        :question="question"
        @choose="bringParcel(file, $event)"
        @leave="leave(file)"
      />
      <HandOver v-if="given" :project-id="props.id" :effect="given" @close="given = ''" @film="film" />
      <FilmDialog v-if="filmed" :project-id="props.id" :effect-id="filmed" @close="filmed = ''" />
      <section>
        <h2>Effects</h2>
        <EffectList
          :effects="project.effects"
          :pictures="made"
          @shown="makeOfEffects"
          @hand-over="given = $event"
          @remove="remove"
        />
        <p v-if="project.effects.length === 0" class="quiet">
          None yet. Name the first above and make it, begin with a starting point below, or drop a parcel from another
          project here.
        </p>
      </section>
      <StartingPoints :is-busy="busy !== ''" @begin="begin" />
      <FindInEffects v-if="project.effects.length > 0" :project-id="props.id" />
      <ProjectFiles
        :project="project"
        :kit="kit"
        :pictures="made"
        @bring="bring"
        @bring-kit="bringKit"
        @remove="removeAsset"
      />
      <Members :project-id="props.id" />
      <BringBack :project-id="props.id" :of="project" @back="load" />
    </template>
  </main>
</template>

<style scoped src="./home.css"></style>
