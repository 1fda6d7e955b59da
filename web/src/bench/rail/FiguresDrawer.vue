<script setup lang="ts">
import { listed } from '@jinx/core/document';
import { computed } from 'vue';
import type { AssetSummary } from '../../api';
import { useEffectStore } from '../../stores/effect';
import MenuButton from '../chips/MenuButton.vue';
import { pickFile } from '../files';
import { kitFile, kitOffered } from '../values/kitChoices';
import { placeThing } from '../values/things';
import ThingWords from './ThingWords.vue';

/** Figures and props on the stage, and what can be put there. */
const props = defineProps<{ assets: readonly AssetSummary[]; kit: readonly string[]; isImporting: string }>();
const emit = defineEmits<{ importKit: [file: string]; importFile: [file: File] }>();
const store = useEffectStore();
const things = computed(() => listed(store.effect!.stage.things));
/** What the project has, the kit's figures that are not here yet, and any file. */
const offered = computed(() => [
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
</script>

<template>
  <p v-if="things.length === 0" class="quiet">
    Nobody stands here yet. Most effects are made on a figure: on its mesh, its bones, or the ground below its feet.
  </p>
  <ThingWords v-for="{ id, item } in things" :id="id" :key="id" :thing="item" :assets="assets" />
  <p>
    <MenuButton
      :label="things.length === 0 ? 'Put a figure on the stage…' : 'And…'"
      :choices="offered"
      title="A figure or prop: of the project, of the Fenlight kit, or any .glb file"
      @choose="bring"
    />
    <span v-if="isImporting" class="quiet" role="status">{{ isImporting }}</span>
  </p>
</template>

<style scoped>
.quiet {
  line-height: 18px;
}
</style>
