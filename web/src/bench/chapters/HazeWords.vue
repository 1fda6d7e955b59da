<script setup lang="ts">
import { type DrawnAs } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ASSETS, BRING } from '../bench';
import { pickFile } from '../files';
import MenuButton from '../MenuButton.vue';
import { PICTURE_FILES } from '../pictures';
import SettingChip from '../SettingChip.vue';

const props = defineProps<{ drawn: Extract<DrawnAs, { kind: 'haze' }> }>();
const store = useEffectStore();
const assets = inject(ASSETS)!;
const bring = inject(BRING)!;
const WORDS = { outward: 'outward', 'in waves': 'in moving waves', 'by a picture': 'as a normal map says:' };
const choices = computed(() => [
  ...assets.value.filter(({ kind }) => kind === 'picture').map(({ hash, name }) => ({ value: hash, text: name })),
  { value: '', text: 'a file (PNG, JPEG, WebP)…' },
]);
const bend = (asset: string, name: string) =>
  store.changeLayer(`bend by ${name}`, ({ drawn }) => drawn.kind === 'haze' && (drawn.picture = { asset, name }));
function choose(hash: string): void {
  const asset = assets.value.find((known) => known.hash === hash);
  if (asset) return void bend(asset.hash, asset.name);
  pickFile(PICTURE_FILES, async (file) => {
    const brought = await bring(file);
    if (brought?.kind === 'picture') bend(brought.hash, brought.name);
  });
}
const isByPicture = computed(() => props.drawn.settings.bends.base.value === 'by a picture');
</script>

<template>
  <p>
    What is behind is bent <SettingChip setting="bends" of="drawn" :words="WORDS" label="bends" />
    <MenuButton
      v-if="isByPicture"
      :label="drawn.picture?.name ?? 'choose a normal map…'"
      :choices="choices"
      @choose="choose"
    />
    by <SettingChip setting="strength" of="drawn" label="strength" /> of its size, in a ring from
    <SettingChip setting="inner" of="drawn" label="inner edge" /> to
    <SettingChip setting="outer" of="drawn" label="outer edge" />,
    <SettingChip setting="softness" of="drawn" label="softness" /> soft, tinted by
    <SettingChip setting="tinted" of="drawn" label="tinted" />.
  </p>
</template>
