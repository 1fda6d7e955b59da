<script setup lang="ts">
import type { Step } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { ASSETS, BRING } from './bench';
import MenuButton from './MenuButton.vue';
import { pickFile } from './files';
import { PICTURE_FILES } from './pictures';
import { useEffectStore } from '../stores/effect';
import { stepToChange } from '@jinx/core/document';

/** Which picture a step of a look shows: one of the project's, or any file. */
const props = defineProps<{ stepId: string; step: Step }>();
const store = useEffectStore();
const assets = inject(ASSETS)!;
const bring = inject(BRING)!;
const picture = computed(() => ('picture' in props.step ? props.step.picture : null));
const choices = computed(() => [
  ...assets.value
    .filter(({ kind, hash }) => kind === 'picture' && hash !== picture.value?.asset)
    .map(({ hash, name }) => ({ value: hash, text: name })),
  { value: '', text: 'a file (PNG, JPEG, WebP)…' },
]);

const show = (asset: string, name: string) =>
  store.change(`show ${name}`, (draft) => {
    const step = stepToChange(draft, store.chosenId, props.stepId);
    if (step && 'picture' in step) step.picture = { asset, name };
  });
function choose(hash: string): void {
  const asset = assets.value.find((known) => known.hash === hash);
  if (asset) return show(asset.hash, asset.name);
  pickFile(PICTURE_FILES, async (file) => {
    const brought = await bring(file);
    if (brought?.kind === 'picture') show(brought.hash, brought.name);
  });
}
</script>

<template><MenuButton :label="picture?.name ?? 'choose a picture…'" :choices="choices" @choose="choose" /></template>
