<script setup lang="ts">
import type { PictureRef } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { ASSETS, BRING } from './bench';
import { pickFile } from './files';
import MenuButton from './MenuButton.vue';
import { PICTURE_FILES } from './pictures';

/** One of the project's pictures, or any file. `without` is the text of having none, where that may be chosen. */
const props = defineProps<{ picture: PictureRef | null; none?: string; without?: string }>();
const emit = defineEmits<{ choose: [picture: PictureRef | null] }>();
const assets = inject(ASSETS)!;
const bring = inject(BRING)!;
const [FILE, NONE] = ['', 'none'];
const choices = computed(() => [
  ...(props.without && props.picture ? [{ value: NONE, text: props.without }] : []),
  ...assets.value
    .filter(({ kind, hash }) => kind === 'picture' && hash !== props.picture?.asset)
    .map(({ hash, name }) => ({ value: hash, text: name })),
  { value: FILE, text: 'a file (PNG, JPEG, WebP)…' },
]);

function choose(value: string): void {
  if (value === NONE) return emit('choose', null);
  const asset = assets.value.find(({ hash }) => hash === value);
  if (asset) return emit('choose', { asset: asset.hash, name: asset.name });
  pickFile(PICTURE_FILES, async (file) => {
    const brought = await bring(file);
    if (brought?.kind === 'picture') emit('choose', { asset: brought.hash, name: brought.name });
  });
}
</script>

<template>
  <MenuButton :label="picture?.name ?? without ?? none ?? 'choose a picture…'" :choices="choices" @choose="choose" />
</template>
