<script setup lang="ts">
import type { PictureRef } from '@jinx/core/document';
import { computed, inject } from 'vue';
import type { AssetSummary } from '../../api';
import { useEffectStore } from '../../stores/effect';
import { ASSETS, BRING, KIT } from '../bench';
import { pickFile } from '../files';
import { assetsAndKit } from '../choices/assetChoices';
import { kitFile } from '../choices/kitChoices';
import MenuButton from './MenuButton.vue';
import { PICTURE_FILES } from '../values/pictures';

/** One of the project's pictures, or any file. `without` is the text of having none, where that may be chosen. */
const props = defineProps<{ picture: PictureRef | null; none?: string; without?: string }>();
const emit = defineEmits<{ choose: [picture: PictureRef | null] }>();
const store = useEffectStore();
const assets = inject(ASSETS)!;
const bring = inject(BRING)!;
const kit = inject(KIT)!;
const [FILE, NONE] = ['', 'none'];
const choices = computed(() => [
  ...(props.without && props.picture ? [{ value: NONE, text: props.without }] : []),
  ...assetsAndKit(store.projectId, assets.value, kit.files.value, 'picture').filter(
    ({ value }) => value !== props.picture?.asset,
  ),
  { value: FILE, text: 'a file (PNG, JPEG, WebP)…' },
]);

function take(brought: AssetSummary | null): void {
  if (brought?.kind === 'picture') emit('choose', { asset: brought.hash, name: brought.name });
}
async function choose(value: string): Promise<void> {
  if (value === NONE) return emit('choose', null);
  const asset = assets.value.find(({ hash }) => hash === value);
  const fromKit = kitFile(value);
  if (asset) take(asset);
  // What has to be taken in first cannot be seen before.
  else if (store.isTrying()) return;
  else if (fromKit !== null) take(await kit.bring(fromKit));
  else pickFile(PICTURE_FILES, async (file) => take(await bring(file)));
}
</script>

<template>
  <MenuButton
    :label="picture?.name ?? without ?? none ?? 'choose a picture…'"
    :choices="choices"
    previews
    @choose="choose"
  />
</template>
