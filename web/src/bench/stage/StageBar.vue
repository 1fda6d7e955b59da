<script setup lang="ts">
import { listed, type Effect } from '@jinx/core/document';
import type { StageView } from '@jinx/stage';
import { computed } from 'vue';
import type { AssetSummary } from '../../api';
import { useEffectStore } from '../../stores/effect';
import CarrierChip from '../chips/CarrierChip.vue';
import ChoiceChip from '../chips/ChoiceChip.vue';
import { pickFile } from '../files';
import { kitFile, kitOffered } from '../values/kitChoices';
import LensChip from '../chips/LensChip.vue';
import MenuButton from '../chips/MenuButton.vue';
import ThingChip from '../chips/ThingChip.vue';
import { FIRST_VIEW, FAR_VIEW, type View } from '@jinx/player/scene';
import { placeThing } from '../values/things';
import { SURROUNDS } from './surrounds';
import { VIEWS } from './views';

/** What stands on the stage and in what light. */
const props = defineProps<{
  assets: readonly AssetSummary[];
  kit: readonly string[];
  isImporting: string;
  view: StageView;
}>();
const emit = defineEmits<{
  importKit: [file: string];
  importFile: [file: File];
  'update:view': [view: StageView];
  look: [view: View];
  keep: [];
  reference: [file: File];
}>();
const store = useEffectStore();
const stage = computed(() => store.effect!.stage);
const things = computed(() => listed(stage.value.things));

const set = (label: string, recipe: (draft: Effect['stage']) => void) =>
  store.change(label, (draft) => recipe(draft.stage));

const surround = (name: Effect['stage']['surround']) =>
  set('choose the surround', (draft) => (draft.surround = name));
function choose(name: Effect['stage']['surround']): void {
  store.preview(null);
  surround(name);
}
/** What can be put on the stage: what the project has, the kit's figures that are not here yet, and any file. */
const brought = computed(() => [
  ...props.assets.map(({ hash, name }) => ({ value: `asset:${hash}`, text: name })),
  ...kitOffered(props.kit, props.assets, 'rig'),
  { value: '', text: 'a .glb file…' },
]);
function bring(chosen: string): void {
  const asset = props.assets.find(({ hash }) => chosen === `asset:${hash}`);
  if (asset)
    store.change(`put ${asset.name} on the stage`, (draft) =>
      placeThing(draft, asset.name, asset.hash, store.newId()),
    );
  else if (kitFile(chosen) !== null) emit('importKit', kitFile(chosen)!);
  else pickFile('.glb', (file) => emit('importFile', file));
}

/** Where it can be seen from: as it is opened, as a game sees it, and what was kept. */
const cameras = computed(() => [
  { value: 'near', text: 'near, a figure whole', view: FIRST_VIEW },
  { value: 'game', text: 'where a game sees it from', view: FAR_VIEW },
  ...listed(stage.value.cameras).map(({ id, item }) => ({ value: `kept:${id}`, text: item.name, view: item })),
]);
const lookFrom = computed(() => [...cameras.value, { value: 'keep', text: 'keep this camera', view: null }]);
function look(chosen: string): void {
  const view = lookFrom.value.find(({ value }) => value === chosen)?.view;
  if (view) emit('look', view);
  else emit('keep');
}
</script>

<template>
  <div class="bar">
    <div role="group" aria-label="Surround">
      <button
        v-for="{ value: name } in SURROUNDS"
        :key="name"
        type="button"
        class="plain"
        :class="{ on: stage.surround === name }"
        :aria-pressed="stage.surround === name"
        @pointerenter="store.preview(() => surround(name))"
        @pointerleave="store.preview(null)"
        @click="choose(name)"
      >
        {{ name[0]!.toUpperCase() + name.slice(1) }}
      </button>
    </div>
    <div class="things">
      <ThingChip v-for="{ id, item } in things" :id="id" :key="id" :thing="item" :assets="assets" />
      <MenuButton
        :label="things.length === 0 ? 'Put a figure on the stage…' : 'And…'"
        :choices="brought"
        title="Another figure or prop"
        @choose="bring"
      />
      <span v-if="isImporting" class="quiet" role="status">{{ isImporting }}</span>
    </div>
    <CarrierChip />
    <LensChip />
    <MenuButton label="Seen from…" :choices="lookFrom" title="Where the stage is looked at from" @choose="look" />
    <button
      type="button"
      class="plain act"
      title="A picture or a video of your own, beside the effect or laid over it"
      @click="pickFile('image/*,video/*', (file) => emit('reference', file))"
    >
      Reference…
    </button>
    <span class="view" title="What the stage shows (V: the picture, or what was shown in its place last)"
      >Shown
      <ChoiceChip
        :value="view"
        :choices="VIEWS"
        label="what the stage shows"
        @choose="(value) => emit('update:view', value as StageView)"
    /></span>
  </div>
</template>

<style scoped>
.bar {
  position: absolute;
  top: 8px;
  left: 10px;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  padding: 2px 6px;
  border-radius: 4px;
  background: #101011b8;
  /* Beside it stands the readout. */
  max-width: calc(100% - 210px);
}
.bar .plain {
  padding: 2px 5px;
}
.view {
  color: var(--soft);
}
.things {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: center;
}
</style>
