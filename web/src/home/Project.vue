<script setup lang="ts">
import { parcelRefusal } from '@jinx/core/answers';
import { newEffect } from '@jinx/core/document';
import { Button, Input, message } from 'ant-design-vue';
import { onMounted, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import {
  api,
  ApiError,
  type AssetSummary,
  type EffectSummary,
  type ParcelQuestion as Question,
  type ProjectDetail,
  type Start,
} from '../api';
import FilmDialog from '../film/FilmDialog.vue';
import HandOver from '../parcels/HandOver.vue';
import ParcelQuestion, { type Chosen } from '../parcels/ParcelQuestion.vue';
import { random32 } from '../stores/effect';
import { tellDeleted } from '../tell';
import AssetFiles from './AssetFiles.vue';
import BringBack from './BringBack.vue';
import DeleteButton from './DeleteButton.vue';
import DiskUse from './DiskUse.vue';
import EffectCard from './EffectCard.vue';
import FindInEffects from './FindInEffects.vue';
import HomeTop from './HomeTop.vue';
import Members from './Members.vue';
import StartingPoints from './StartingPoints.vue';
import { when } from '../when';
import { usePictures } from './pictures';

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
const { pictures, makePictures } = usePictures();
const load = () =>
  attempt('', async () => {
    const kitFiles = api.kit();
    project.value = await api.project(props.id);
    void makePictures(project.value.effects);
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
function pick(accept: string, use: (file: File) => Promise<void>): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = accept;
  input.onchange = () => input.files?.[0] && void use(input.files[0]);
  input.click();
}
const bringFigure = (file: File) =>
  attempt(`Taking in ${file.name}…`, async () => {
    await api.importFile(props.id, file);
    await load();
  });
const bringKit = (file: string) =>
  attempt(`Taking in ${file}…`, async () => {
    await api.importKit(props.id, file);
    await load();
  });
/** A parcel of which something is open, until it is chosen what to do. */
const asking = shallowRef<{ file: File; question: Question } | null>(null);
const NONE_CHOSEN: Chosen = { clashes: {}, figures: {}, bones: [] };
const bringParcel = (file: File, { bones, ...choices } = NONE_CHOSEN) =>
  attempt(`Opening ${file.name}…`, async () => {
    asking.value = null;
    try {
      for (const each of bones) await api.keepBones(props.id, each.from, each.to, each.bones);
      const { effects, isKnown } = await api.importParcel(props.id, file, choices);
      const names = effects.map((effect) => effect.name).join(', ');
      const are = effects.length === 1 ? 'is' : 'are';
      const sentence = isKnown
        ? `${names} ${are} here already, with all that is used: nothing was changed.`
        : `${names} ${are} in this project now, with all that is used.`;
      void message.success(sentence, 5);
      await load();
    } catch (error) {
      const { data: refusal } = parcelRefusal.safeParse(error instanceof ApiError ? error.body : null);
      if (!refusal) throw error;
      asking.value = { file, question: refusal };
    }
  });
const removeAsset = ({ hash }: AssetSummary) =>
  attempt('', async () => {
    await api.deleteAsset(props.id, hash);
    await load();
  });
function drop(event: DragEvent): void {
  const file = event.dataTransfer?.files[0];
  if (file) void (file.name.endsWith('.zip') ? bringParcel(file) : bringFigure(file));
}
</script>

<template>
  <HomeTop><RouterLink to="/" class="quiet">Projects</RouterLink></HomeTop>
  <main v-if="project" class="home" @dragover.prevent @drop.prevent="drop">
    <h1>{{ project.name }}</h1>
    <p class="quiet" role="status">{{ busy || 'Drop a figure (.glb) or a parcel (.zip) anywhere on this page.' }}</p>
    <ParcelQuestion
      v-if="asking"
      :file="asking.file.name"
      :question="asking.question"
      @choose="bringParcel(asking.file, $event)"
      @leave="asking = null"
    />
    <HandOver v-if="given" :project-id="props.id" :effect="given" @close="given = ''" @film="film" />
    <FilmDialog v-if="filmed" :project-id="props.id" :effect-id="filmed" @close="filmed = ''" />
    <section>
      <h2>Effects</h2>
      <ul class="cards">
        <li v-for="effect in project.effects" :key="effect.id">
          <EffectCard :effect="effect" :picture="pictures.get(effect.id)" />
          <span class="quiet number">saved {{ when(effect.savedAt) }}</span>
          <span class="acts">
            <Button type="text" :aria-label="`Hand over ${effect.name}`" @click="given = effect.id">
              Hand over
            </Button>
            <DeleteButton :name="effect.name" @delete="remove(effect)" />
          </span>
        </li>
      </ul>
      <p v-if="project.effects.length === 0" class="quiet">
        None yet. Name the first below, begin with a starting point, or bring in a parcel from another project.
      </p>
      <div class="row">
        <form class="new" style="margin: 0" @submit.prevent="make">
          <Input
            v-model:value="name"
            placeholder="Name of a new effect"
            aria-label="Name of a new effect"
            :maxlength="80"
          />
          <Button html-type="submit" type="primary">Make effect</Button>
        </form>
        <Button type="link" @click="pick('.zip', bringParcel)">Bring in a parcel…</Button>
      </div>
    </section>
    <StartingPoints :is-busy="busy !== ''" @begin="begin" />
    <FindInEffects v-if="project.effects.length > 0" :project-id="props.id" />
    <section>
      <h2>Figures and pictures</h2>
      <DiskUse :disk="project.disk" />
      <ul class="list">
        <li v-for="asset in project.assets" :key="asset.hash">
          <span>{{ asset.name }}</span>
          <AssetFiles :project-id="props.id" :asset="asset" />
          <Button
            type="text"
            :aria-label="`Take ${asset.name} out`"
            title="Take it out of the project; it can be brought back for 30 days"
            @click="removeAsset(asset)"
          >
            Take out
          </Button>
        </li>
      </ul>
      <p v-if="project.assets.length === 0" class="quiet">
        None yet: effects can do without, but most are made on a body.
      </p>
      <div class="row">
        <Button type="link" @click="pick('.glb', bringFigure)">Bring in a figure…</Button>
        <Button v-for="file in kit" :key="file" type="link" @click="bringKit(file)">
          Take {{ file.replace('.glb', '') }} from the Fenlight kit
        </Button>
      </div>
    </section>
    <Members :project-id="props.id" />
    <BringBack :project-id="props.id" :of="project" @back="load" />
  </main>
</template>

<style scoped src="./home.css"></style>
