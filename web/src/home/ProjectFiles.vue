<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { computed } from 'vue';
import { api, type AssetSummary, type ProjectDetail } from '../api';
import { pickFiles } from '../bench/files';
import { kitFile, kitOffered } from '../bench/choices/kitChoices';
import { sizeWords } from '../parcels/sizes';
import Thumbnail from '../thumbnails/Thumbnail.vue';
import AssetFiles from './AssetFiles.vue';
import DiskUse from './DiskUse.vue';
import { TAKEN_FILES } from './useIncoming';

/** Figures, meshes and pictures of a project, and what can be brought in. */
const props = defineProps<{
  project: ProjectDetail;
  kit: readonly string[];
  pictures: ReadonlyMap<string, ImageBitmap>;
}>();
const emit = defineEmits<{ bring: [file: File]; bringKit: [file: string]; remove: [asset: AssetSummary] }>();
const KINDS = { rig: 'figure or mesh', picture: 'picture' };
const address = ({ hash, hasThumbnail }: AssetSummary) =>
  hasThumbnail ? api.thumbnailAddress(props.project.id, hash) : undefined;
/** What of the kit is not here yet. */
const offered = computed(() => [
  ...kitOffered(props.kit, props.project.assets, 'rig'),
  ...kitOffered(props.kit, props.project.assets, 'picture'),
]);
</script>

<template>
  <section>
    <div class="heading">
      <h2>Figures and pictures</h2>
      <Button type="link" @click="pickFiles(TAKEN_FILES, (file) => emit('bring', file))">Bring in files…</Button>
    </div>
    <DiskUse :disk="project.disk" />
    <ul class="assets" aria-label="Figures and pictures">
      <li v-for="asset in project.assets" :key="asset.hash">
        <Thumbnail class="thumb" :picture="pictures.get(asset.hash)" :address="address(asset)" />
        <span class="words">
          <span class="name" :title="asset.name">{{ asset.name }}</span>
          <span class="quiet">{{ KINDS[asset.kind] }}, {{ sizeWords(asset.bytes) }}</span>
          <span class="acts">
            <AssetFiles :project-id="project.id" :asset="asset" />
            <Button
              type="text"
              :aria-label="`Take out ${asset.name}`"
              title="Take it out of the project; it can be brought back for 30 days"
              @click="emit('remove', asset)"
            >
              Take out
            </Button>
          </span>
        </span>
      </li>
    </ul>
    <p v-if="project.assets.length === 0" class="quiet">
      None yet: effects can do without, but most are made on a body. Drop files anywhere on this page, or take
      something of the Fenlight kit.
    </p>
    <template v-if="offered.length > 0">
      <h3>From the Fenlight kit</h3>
      <ul class="assets kit" aria-label="From the Fenlight kit">
        <li v-for="{ value, text, picture } in offered" :key="value">
          <Button
            type="text"
            class="offer"
            :aria-label="`Take ${text.replace(/,.*/, '')} from the Fenlight kit`"
            @click="emit('bringKit', kitFile(value)!)"
          >
            <Thumbnail class="thumb" :address="picture" />{{ text.replace(/,.*/, '') }}
          </Button>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped src="./home.css"></style>
<style scoped>
.assets {
  list-style: none;
  padding: 0;
  margin: 12px 0 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(290px, 1fr));
  gap: 14px 20px;
}
.assets li {
  display: flex;
  gap: 10px;
  min-width: 0;
}
.thumb {
  flex: none;
  width: 96px;
  height: 60px;
}
.words {
  min-width: 0;
}
.words > span {
  display: block;
  line-height: 19px;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.words .acts {
  display: flex;
}
.kit {
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
}
.offer {
  display: flex;
  align-items: center;
  gap: 10px;
  text-align: left;
}
</style>
