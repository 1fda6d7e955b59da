<script setup lang="ts">
import { freeName, emptyCollection, listed, withItem, type Layer } from '@jinx/core/document';
import { wholeOf } from '@jinx/core/editing';
import { DEFAULT_BUDGET } from '@jinx/core/simulation';
import { message } from 'ant-design-vue';
import type { StageView as View } from '@jinx/stage';
import { computed, onBeforeUnmount, provide, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api, ApiError, type AssetSummary } from '../api';
import type { ToldFinding } from '../engine/checksWorker';
import { openDoor } from '../engine/door';
import { Engine } from '../engine/engine';
import { FIRST_VIEW, type View as Camera } from '@jinx/player/scene';
import { useEffectStore } from '../stores/effect';
import { useSavingStore } from '../stores/saving';
import { tell } from '../tell';
import { ALONE, ASSETS, BRING, ENGINE, BELOW, KIT, type Below } from './bench';
import BenchTop from './BenchTop.vue';
import Chapters from './Chapters.vue';
import Compared from './compare/Compared.vue';
import ContactSheet from './compare/ContactSheet.vue';
import { provideOther } from './compare/other';
import OtherStage from './compare/OtherStage.vue';
import Reference from './compare/Reference.vue';
import FindingsLine from './FindingsLine.vue';
import ClashNotice from './history/ClashNotice.vue';
import History from './history/History.vue';
import Tray from './history/Tray.vue';
import { useOthers } from './history/useOthers';
import { putStateBy } from './history/putStateBy';
import { useFindings } from './useFindings';
import { useKeys } from './keys';
import { useHistory } from './livingHistory';
import InWords from './reading/InWords.vue';
import LivingTable from './reading/LivingTable.vue';
import OverTime from './reading/OverTime.vue';
import { pickOne, provideProbe } from './reading/probe';
import Readout from './Readout.vue';
import Rulers from './Rulers.vue';
import StageBar from './StageBar.vue';
import { showPicture } from './pictures';
import { placeThing } from './things';
import StageView from './StageView.vue';
import Transport from './Transport.vue';
import { keyInstants } from './views';
import ViewLegend from './ViewLegend.vue';

/** One effect on the bench. */
const props = defineProps<{ id: string }>();
const { others } = useOthers(props.id);
const router = useRouter();
const store = useEffectStore();
const saving = useSavingStore();
const engine = new Engine();
provide(ENGINE, engine);

const assets = shallowRef<readonly AssetSummary[]>([]);
provide(ASSETS, assets);
const rigAssets = computed(() => assets.value.filter(({ kind }) => kind === 'rig'));
const kit = shallowRef<readonly string[]>([]);
const projectName = ref('');
const isImporting = ref('');
const showGuides = ref(true);
const follows = ref(true);
const isReady = ref(false);
const budget = ref(DEFAULT_BUDGET);
const stageView = ref<InstanceType<typeof StageView>>();
const transport = ref<InstanceType<typeof Transport>>();
const history = useHistory(engine);
const probe = provideProbe();
const other = provideOther();
const reference = shallowRef<File | null>(null);
const referencePlace = ref<'beside' | 'over'>('beside');
/** Where the stage is seen from. */
const seen = shallowRef<Camera>(FIRST_VIEW);
/** What stands beside the stage, which then has no room for its bar. */
const besides = computed(
  () =>
    Number(other.effect.value !== null && other.pictures.value === 'beside') +
    Number(reference.value !== null && referencePlace.value === 'beside'),
);
/** What stands below the stage. */
const below = ref<Below>('rulers');
provide(BELOW, below);

const isRaw = ref(false);
const isDim = ref(false);
const alone = ref<{ layer: string; step: string } | null>(null);
provide(ALONE, alone);
watch([isRaw, isDim, alone], () => engine.see({ isRaw: isRaw.value, isDim: isDim.value, alone: alone.value }));

const view = ref<View>('picture');
/** What was shown in place of the picture last. */
let lastView: View = 'grey';
watch(view, (shown) => {
  if (shown !== 'picture') lastView = shown;
  engine.stage.show(shown);
});
const instants = computed(() =>
  view.value === 'silhouette' && store.effect ? keyInstants(store.effect.stretches) : [],
);
let instantsTimer = 0;
/** Silhouettes of other instants are computed anew once an edit has come to rest. */
watch([() => store.effect, instants], ([, seconds], before) => {
  window.clearTimeout(instantsTimer);
  if (seconds.length === 0 && !before?.[1]?.length) return;
  instantsTimer = window.setTimeout(() => engine.layInstants(seconds), seconds.length > 0 ? 250 : 0);
});

const closeDoor = openDoor(engine, () =>
  Object.fromEntries(
    listed(store.effect ? wholeOf(store.effect).effect.layers : emptyCollection<Layer>()).map(({ id, item }) => [
      item.name,
      id,
    ]),
  ),
);
onBeforeUnmount(() => {
  closeDoor();
  unheard();
  void saving.save();
  engine.stop();
});

async function open(): Promise<void> {
  try {
    const told = await saving.open(props.id);
    const [project, kitFiles] = await Promise.all([api.project(store.projectId), api.kit()]);
    assets.value = project.assets;
    projectName.value = project.name;
    kit.value = kitFiles;
    budget.value = project.livingBudget;
    isReady.value = true;
    await engine.edit(store.effect!, budget.value);
    engine.playback.play();
    if (told) void message.info(told, 6);
  } catch (error) {
    tell(error);
    if (error instanceof ApiError && error.status === 404) void router.replace('/');
  }
}
void open();

const unheard = store.onTransition((transition) => {
  if (isReady.value) void engine.edit(transition.after, budget.value, transition).catch(tell);
});
/** Another budget is another world: it is computed anew, and the old picture stays until then. */
async function setBudget(value: number): Promise<void> {
  try {
    await api.setBudget(store.projectId, value);
    budget.value = value;
    await engine.edit(store.effect!, value);
  } catch (error) {
    tell(error);
  }
}
watch(
  () => store.told,
  (refused) => refused && void message.info({ content: refused.sentence, key: 'refusal' }),
);

const { found, mend } = useFindings(engine, budget);
/** Leads to where a finding is put right. */
function lead({ layerId, where }: ToldFinding): void {
  if (layerId !== null) store.choose([layerId]);
  if (where === 'whole') store.page = 'effect';
  else if (where !== 'rulers') store.chapter = where;
}

/** What was just taken in is used at once: a figure goes on the stage, a picture is shown by a layer. */
function put(asset: AssetSummary, layerId: string): void {
  if (asset.kind === 'rig')
    store.change(`put ${asset.name} on the stage`, (draft) =>
      placeThing(draft, asset.name, asset.hash, store.newId()),
    );
  else if (!store.effect?.layers.byId[layerId])
    void message.info(`${asset.name} is in the project now. Add a layer to show it.`, 5);
  else store.change(`show ${asset.name}`, (draft) => showPicture(draft, layerId, asset, store.newId()));
}
async function bring(work: Promise<AssetSummary>, name: string): Promise<AssetSummary | null> {
  isImporting.value = `Taking in ${name}…`;
  try {
    const asset = await work;
    if (!assets.value.some(({ hash }) => hash === asset.hash)) assets.value = [...assets.value, asset];
    // It may be what the effect was missing.
    engine.retryMissing();
    return asset;
  } catch (error) {
    tell(error);
    return null;
  } finally {
    isImporting.value = '';
  }
}
const bringFile = (file: File) => bring(api.importFile(store.projectId, file), file.name);
provide(BRING, bringFile);
async function dropFile(file: File, layerId = store.chosenId): Promise<void> {
  const asset = await bringFile(file);
  if (asset) put(asset, layerId);
}
const takeFromKit = (file: string) => bring(api.importKit(store.projectId, file), file);
provide(KIT, { files: kit, bring: takeFromKit });
async function bringKit(file: string): Promise<void> {
  const asset = await takeFromKit(file);
  if (asset) put(asset, '');
}

/** Keeps where the stage is seen from, under a name that can be changed among what is set for the whole effect. */
function keepCamera(): void {
  const view = stageView.value!.seen();
  store.change('keep a camera', (draft) => {
    const name = freeName(draft.stage.cameras, 'Camera');
    draft.stage.cameras = withItem(draft.stage.cameras, store.newId(), { name, ...view });
  });
}
function dropOnChapter(event: DragEvent): void {
  const file = event.dataTransfer?.files[0];
  if (file) void dropFile(file);
}

/** Puts the present state by, with its picture, without leaving the work. */
async function keepState(): Promise<void> {
  try {
    await putStateBy(engine, store.id, store.effect!);
    void message.success({ content: 'Kept in the tray.', key: 'tray' });
  } catch (error) {
    tell(error);
  }
}

/** Whether any layer listens for strikes. */
const hasHits = computed(() =>
  listed(store.effect?.layers ?? emptyCollection<Layer>()).some(({ item }) => item.source.kind === 'hits'),
);
useKeys({
  ' ': () => transport.value?.toggle(),
  ',': () => transport.value?.step(-1),
  '.': () => transport.value?.step(1),
  l: () => transport.value?.letGo(),
  x: () => hasHits.value && stageView.value?.strike(),
  1: () => stageView.value?.handles?.setTool('move'),
  2: () => stageView.value?.handles?.setTool('turn'),
  3: () => stageView.value?.handles?.setTool('size'),
  k: () => stageView.value?.handles?.keyHere(),
  c: () => (showGuides.value = !showGuides.value),
  g: () => pickOne(engine, probe),
  p: () => pickOne(engine, probe, 'pixel'),
  t: () => void keepState(),
  '?': () => transport.value?.showKeys(),
  r: () => (isRaw.value = !isRaw.value),
  d: () => (isDim.value = !isDim.value),
  v: () => (view.value = view.value === 'picture' ? lastView : 'picture'),
  Enter: () => stageView.value?.frameAll(),
  'ctrl+z': () => store.undo(),
  'ctrl+shift+z': () => store.redo(),
  'ctrl+y': () => store.redo(),
});
</script>

<template>
  <div class="bench">
    <BenchTop v-model:below="below" :project-name="projectName" :others="others" />
    <template v-if="isReady && store.effect">
      <div class="upper" :style="{ '--stages': besides + 1 }">
        <StageView
          ref="stageView"
          :show-guides="showGuides && view !== 'silhouette'"
          v-model:follows="follows"
          @drop-file="dropFile"
          @seen="seen = $event"
        >
          <OtherStage v-if="other.effect.value && other.pictures.value === 'wipe'" :view="seen" :budget="budget" />
          <Reference
            v-if="reference && referencePlace === 'over'"
            v-model:place="referencePlace"
            :file="reference"
            @remove="reference = null"
          />
          <StageBar
            v-if="besides === 0"
            :assets="rigAssets"
            :kit="kit"
            :is-importing="isImporting"
            v-model:view="view"
            @look="stageView?.look($event)"
            @keep="keepCamera"
            @reference="reference = $event"
            @import-kit="bringKit"
            @import-file="dropFile"
          />
          <ViewLegend :view="view" :instants="instants" :have="engine.instants.value" />
          <Readout :budget="budget" @set-budget="setBudget" />
          <template #foot><FindingsLine :findings="found" @lead="lead" @mend="mend" /></template>
        </StageView>
        <OtherStage v-if="other.effect.value && other.pictures.value === 'beside'" :view="seen" :budget="budget" />
        <Reference
          v-if="reference && referencePlace === 'beside'"
          v-model:place="referencePlace"
          :file="reference"
          @remove="reference = null"
        />
        <Chapters @dragover.prevent @drop.prevent="dropOnChapter" />
      </div>
      <Transport
        ref="transport"
        v-model:show-guides="showGuides"
        v-model:follows="follows"
        v-model:is-raw="isRaw"
        v-model:is-dim="isDim"
        :has-hits="hasHits"
        @strike="stageView?.strike()"
      />
      <Rulers v-if="below === 'rulers'" :living="history.living" @drop-file="dropFile" />
      <LivingTable v-else-if="below === 'living'" />
      <OverTime v-else-if="below === 'time'" :history="history" :budget="budget" />
      <InWords v-else-if="below === 'words'" />
      <Compared v-else-if="below === 'compared'" :view="seen" :budget="budget" />
      <ContactSheet v-else-if="below === 'sheet'" :view="seen" :budget="budget" />
      <History v-else-if="below === 'history'" />
      <Tray v-else />
    </template>
    <p v-else class="quiet opening">Opening…</p>
    <ClashNotice />
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: 38px minmax(390px, 1fr) 34px minmax(260px, 42%);
  overflow: hidden;
}
.upper {
  display: grid;
  grid-template-columns: repeat(var(--stages), minmax(0, 1fr)) 384px;
  min-height: 0;
}
.opening {
  padding: 40px;
}
</style>
