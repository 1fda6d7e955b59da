<script setup lang="ts">
import type { DrawnAs, PictureRef } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import PictureMenu from '../../chips/PictureMenu.vue';
import SettingChip from '../../chips/SettingChip.vue';
import { useChosenPart } from '../../useChosenPart';

const props = defineProps<{ drawn: Extract<DrawnAs, { kind: 'haze' }> }>();
const store = useEffectStore();
const of = useChosenPart('drawn');
const WORDS = { outward: 'outward', 'in waves': 'in moving waves', 'by a picture': 'as a normal map says:' };
const bend = (picture: PictureRef | null) =>
  store.changeLayers(`bend by ${picture?.name ?? 'nothing'}`, ({ drawn }) => {
    if (drawn.kind === 'haze') drawn.picture = picture;
  });
const isByPicture = computed(() => props.drawn.settings.bends.base.value === 'by a picture');
</script>

<template>
  <p>
    What is behind is bent <SettingChip setting="bends" :of="of" :words="WORDS" label="bends" />
    <PictureMenu v-if="isByPicture" :picture="drawn.picture" none="choose a normal map…" @choose="bend" />
    by <SettingChip setting="strength" :of="of" label="strength" /> of its size, in a ring from
    <SettingChip setting="inner" :of="of" label="inner edge" /> to
    <SettingChip setting="outer" :of="of" label="outer edge" />,
    <SettingChip setting="softness" :of="of" label="softness" /> soft, tinted by
    <SettingChip setting="tinted" :of="of" label="tinted" />. Its look says how far, and in which colours; a scroll
    moves and tiles what bends it.
  </p>
</template>
