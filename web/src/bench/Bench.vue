<script setup lang="ts">
import { freeName, emptyCollection, listed, withItem, type Layer } from '@jinx/core/document';
import { wholeOf } from '@jinx/core/editing';
import { Button, Skeleton } from 'ant-design-vue';
import { computed, onBeforeUnmount, provide, ref, shallowRef, watch, type Ref } from 'vue';
import type { ToldFinding } from '../engine/checksWorker';
import { openDoor } from '../engine/door';
import { Engine } from '../engine/engine';
import { FIRST_VIEW, type View as Camera } from '@jinx/player/scene';
import { useEffectStore } from '../stores/effect';
import { BELOW, ENGINE, LAYER_ACTS, TOOL, type Below, type Tool } from './bench';
import BenchTop from './BenchTop.vue';
import {
  BenchTour,
  Chapters,
  ClashNotice,
  Compared,
  ContactSheet,
  History,
  InWords,
  LivingTable,
  OtherStage,
  OverTime,
  Rail,
  Reference,
  Rulers,
  Tray,
} from './late';
import { provideCommands } from './commands/registry';
import { useKeys } from './commands/useKeys';
import { provideOther } from './compare/other';
import { useOthers } from './history/useOthers';
import { useFindings } from './useFindings';
import { useHistory } from './stage/livingHistory';
import { provideProbe } from './reading/probe';
import StatusLine from './stage/StatusLine.vue';
import SplitPair from './panes/SplitPair.vue';
import { usePanes } from './panes/usePanes';
import { useClipboard } from './rulers/useClipboard';
import { useLayerActs } from './rulers/useLayerActs';
import { useLayerCommands } from './commands/useLayerCommands';
import StageView from './stage/StageView.vue';
import LastChip from './stage/alone/LastChip.vue';
import { useLastChip } from './stage/alone/useLastChip';
import { useJudging } from './stage/alone/useJudging';
import { useProjectFiles } from './stage/useProjectFiles';
import { usePictureWindow } from './stage/alone/usePictureWindow';
import Transport from './stage/Transport.vue';
import { useAssets } from './useAssets';
import { useBenchCommands } from './useBenchCommands';
import { useOpened } from './useOpened';
import { useShown } from './useShown';
import ViewLegend from './stage/ViewLegend.vue';

/** One effect on the bench. */
const props = defineProps<{ id: string }>();
const { others } = useOthers(props.id);
const store = useEffectStore();
const engine = new Engine();
provide(ENGINE, engine);
const commands = provideCommands();
useKeys(commands);
const probe = provideProbe();
const { showGuides, follows, isRaw, view, instants } = useShown(engine, commands);
const panes = usePanes(commands);
const isFolded = (fold: Ref<boolean>) =>
  computed({ get: () => fold.value || panes.isAlone.value, set: (folded) => (fold.value = folded) });
const chaptersFolded = isFolded(panes.areChaptersFolded);
const belowFolded = isFolded(panes.isBelowFolded);
provide(TOOL, ref<Tool>('move'));
const layerActs = useLayerActs(engine, (file) => takeFromKit(file));
provide(LAYER_ACTS, layerActs);
useBenchCommands(engine, probe, commands);
const { judged, judging } = useJudging(
  panes.isAlone,
  () => assets.value,
  { isRaw },
  () => stageView.value,
);
const { project, isReady, parts, isFurnished, budget, setBudget, showNow } = useOpened(props.id, engine, judged);
watch(judging, showNow);
const { assets, kit, importing, dropFiles, dropOnLayer, takeFromKit, useFromKit } = useAssets(engine, project);
const rigAssets = computed(() => assets.value.filter(({ kind }) => kind === 'rig'));
const history = useHistory(engine);
const { found, mend } = useFindings(engine, budget, isFurnished);
const other = provideOther();

const stageView = ref<InstanceType<typeof StageView>>();
const { reference } = useProjectFiles(engine, project);
const referencePlace = ref<'beside' | 'over'>('beside');
/** Where the stage is seen from. */
const seen = shallowRef<Camera>(FIRST_VIEW);
/** What stands beside the stage. */
const besides = computed(
  () =>
    Number(other.effect.value !== null && other.pictures.value === 'beside') +
    Number(reference.value !== null && referencePlace.value === 'beside'),
);
/** What stands below the stage. */
const below = ref<Below>('rulers');
provide(BELOW, below);
useLayerCommands(layerActs, useClipboard(), engine, commands);
const allLayers = computed(() =>
  listed(store.effect ? wholeOf(store.effect).effect.layers : emptyCollection<Layer>()),
);
/** Whether any layer listens for strikes. */
const hasHits = computed(() =>
  listed(store.effect?.layers ?? emptyCollection<Layer>()).some(({ item }) => item.source.kind === 'hits'),
);

usePictureWindow(engine, commands);
const lastChip = useLastChip();

const closeDoor = openDoor(engine, () => Object.fromEntries(allLayers.value.map(({ id, item }) => [item.name, id])));
onBeforeUnmount(() => {
  closeDoor();
  engine.stop();
});

/** Leads to where a finding is put right. */
function lead({ layerId, where }: ToldFinding): void {
  if (layerId !== null) store.choose([layerId]);
  if (where === 'whole') store.page = 'effect';
  else if (where !== 'rulers') store.leadTo(where);
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
  const files = [...(event.dataTransfer?.files ?? [])];
  if (files.length > 0) dropOnLayer(files, store.chosenId);
}
</script>

<template>
  <div class="bench" :class="{ alone: panes.isAlone.value }">
    <BenchTop
      v-model:below="below"
      :project-name="project?.name ?? ''"
      :others="others"
      :view="seen"
      :findings="found"
      :effects="project?.effects ?? []"
      @lead="lead"
    />
    <template v-if="isReady && store.effect">
      <Rail
        v-if="parts.includes('rail')"
        :assets="rigAssets"
        :kit="kit"
        :is-importing="importing"
        :has-hits="hasHits"
        @look="stageView?.look($event)"
        @keep="keepCamera"
        @import-kit="useFromKit"
        @import-file="dropFiles([$event])"
      />
      <SplitPair
        v-model:share="panes.chapters.value"
        v-model:folded="chaptersFolded"
        class="panes"
        label="Width of the chapters"
        :least="[30, 14]"
      >
        <template #first>
          <SplitPair
            v-model:share="panes.below.value"
            v-model:folded="belowFolded"
            horizontal
            label="Height of what stands below the picture"
            :least="[30, 14]"
          >
            <template #first>
              <div class="upper">
                <div class="pictures" data-guide="bench#picture" :style="{ '--stages': besides + 1 }">
                  <StageView
                    ref="stageView"
                    :has-hits="hasHits"
                    :show-guides="showGuides && view !== 'silhouette'"
                    v-model:follows="follows"
                    @drop-files="dropFiles"
                    @seen="seen = $event"
                  >
                    <OtherStage
                      v-if="other.effect.value && other.pictures.value === 'wipe'"
                      :view="seen"
                      :budget="budget"
                    />
                    <Reference
                      v-if="reference && referencePlace === 'over'"
                      v-model:place="referencePlace"
                      :file="reference"
                      @remove="reference = null"
                    />
                  </StageView>
                  <OtherStage
                    v-if="other.effect.value && other.pictures.value === 'beside'"
                    :view="seen"
                    :budget="budget"
                  />
                  <Reference
                    v-if="reference && referencePlace === 'beside'"
                    v-model:place="referencePlace"
                    :file="reference"
                    @remove="reference = null"
                  />
                </div>
                <ViewLegend :view="view" :instants="instants" :have="engine.instants.value" />
                <Transport>
                  <template v-if="panes.isAlone.value">
                    <LastChip v-if="lastChip" :address="lastChip" />
                    <Button type="link" title="Back to the bench" @click="commands.run('picture.alone')"
                      >Bench</Button
                    >
                  </template>
                  <StatusLine :budget="budget" :findings="found" @set-budget="setBudget" @lead="lead" @mend="mend" />
                </Transport>
              </div>
            </template>
            <template #second>
              <Skeleton v-if="!parts.includes('rulers')" class="coming" :title="false" :paragraph="{ rows: 6 }" />
              <Rulers v-else-if="below === 'rulers'" :living="history.living" @drop-files="dropOnLayer" />
              <LivingTable v-else-if="below === 'living'" data-guide="bench#reading" />
              <OverTime v-else-if="below === 'time'" data-guide="bench#reading" :history="history" :budget="budget" />
              <InWords v-else-if="below === 'words'" data-guide="bench#reading" />
              <Compared v-else-if="below === 'compared'" data-guide="bench#comparing" :view="seen" :budget="budget" />
              <ContactSheet
                v-else-if="below === 'sheet'"
                data-guide="bench#comparing"
                :view="seen"
                :budget="budget"
              />
              <History v-else-if="below === 'history'" data-guide="bench#history" />
              <Tray v-else data-guide="bench#history" />
            </template>
          </SplitPair>
        </template>
        <template #second>
          <Chapters v-if="parts.includes('chapters')" @dragover.prevent @drop.prevent="dropOnChapter" />
          <Skeleton v-else class="coming" :paragraph="{ rows: 8 }" />
        </template>
      </SplitPair>
    </template>
    <p v-else class="quiet opening">Opening…</p>
    <template v-if="isFurnished">
      <BenchTour />
      <ClashNotice />
    </template>
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  display: grid;
  grid-template-columns: 36px minmax(0, 1fr);
  grid-template-rows: 36px minmax(0, 1fr);
  overflow: hidden;
}
.bench > :first-child,
.opening {
  grid-column: 1 / -1;
}
.bench:not(.alone) > .panes {
  grid-column: 2;
}
.coming {
  padding: 16px;
}
.panes :deep(.splitpanes__pane > *) {
  height: 100%;
}
.upper {
  display: flex;
  flex-direction: column;
}
.pictures {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: repeat(var(--stages), minmax(0, 1fr));
}
.opening {
  padding: 40px;
}
/* The picture alone: it stays where it is in the page, so that it is drawn on without a break. */
.alone {
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr);
}
.alone > :deep(.top),
.alone > :deep(.rail),
.alone :deep(.splitpanes__splitter) {
  display: none;
}
</style>
