<script setup lang="ts">
import { listed } from '@jinx/core/document';
import { Button } from 'ant-design-vue';
import { computed } from 'vue';
import type { AssetSummary } from '../../api';
import { useEffectStore } from '../../stores/effect';
import { pickFile } from '../files';
import Thumbnail from '../../thumbnails/Thumbnail.vue';
import { assetChoices } from '../choices/assetChoices';
import { kitFile, kitOffered } from '../choices/kitChoices';
import { placeThing } from '../values/things';
import ThingWords from './ThingWords.vue';

/** Figures and props on the stage, and what can be put there. */
const props = defineProps<{ assets: readonly AssetSummary[]; kit: readonly string[]; isImporting: string }>();
const emit = defineEmits<{ importKit: [file: string]; importFile: [file: File] }>();
const store = useEffectStore();
const things = computed(() => listed(store.effect!.stage.things));
/** What the project has, the kit's figures that are not here yet, and any file. */
const offered = computed(() => [
  ...assetChoices(store.projectId, props.assets, 'rig').map(({ value, ...rest }) => ({
    ...rest,
    value: `asset:${value}`,
    help: 'Of this project',
  })),
  ...kitOffered(props.kit, props.assets, 'rig').map(({ value, text, picture }) => ({
    value,
    picture,
    text: text.replace(/,.*/, ''),
    help: 'From the Fenlight kit',
  })),
  { value: '', text: 'a file…', picture: undefined, help: 'A figure or prop as binary glTF (.glb)' },
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
  <div class="offered" role="group" aria-label="Put on the stage">
    <Button
      v-for="{ value, text, help, picture } in offered"
      :key="value"
      :title="help"
      :aria-label="value === '' ? undefined : `Put ${text} on the stage`"
      @click="bring(value)"
    >
      <Thumbnail v-if="picture" class="picture" :address="picture" />{{ text }}
    </Button>
  </div>
  <p v-if="isImporting" class="quiet" role="status">{{ isImporting }}</p>
</template>

<style scoped>
.quiet {
  line-height: 18px;
}
.offered {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-top: 4px;
  /* Two rows and a half: that there is more is seen, and the rulers below stay free. */
  max-height: 210px;
  overflow: hidden auto;
}
.offered :deep(button) {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: flex-end;
  height: auto;
  min-width: 82px;
  padding: 4px;
}
.picture {
  width: 72px;
  height: 45px;
}
</style>
