<script setup lang="ts">
import { listed, type Surround } from '@jinx/core/document';
import { Switch } from 'ant-design-vue';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ASSETS } from '../bench';
import ChoiceChip from '../chips/ChoiceChip.vue';
import type { JudgingSet } from '../stage/alone/judging';
import { SURROUNDS } from '../stage/surrounds';
import { assetChoices } from '../choices/assetChoices';
import { JUDGING, READY_CAMERAS } from '../stage/alone/useJudging';

/** What the picture alone is judged in. */
const store = useEffectStore();
const judging = inject(JUDGING)!;
const assets = inject(ASSETS)!;
const AS_IT_IS = { value: '', text: 'as it is' };
const surrounds = [AS_IT_IS, ...SURROUNDS.map(({ value, text }) => ({ value: value as string, text }))];
const figures = computed(() => [AS_IT_IS, ...assetChoices(store.projectId, assets.value, 'rig')]);
const cameras = computed(() => [
  AS_IT_IS,
  ...listed(store.effect!.stage.cameras).map(({ id, item }) => ({ value: id, text: item.name })),
  ...READY_CAMERAS.map(({ name }) => ({ value: name, text: name })),
]);
const set = (part: Partial<JudgingSet>) => (judging.value = { ...judging.value, ...part });
</script>

<template>
  <p class="judging">
    In the picture alone (F): surround
    <ChoiceChip
      :value="judging.surround ?? ''"
      :choices="surrounds"
      label="surround of the picture alone"
      @choose="set({ surround: ($event || null) as Surround | null })"
    />, figure
    <ChoiceChip
      :value="judging.figure ?? ''"
      :choices="figures"
      label="figure of the picture alone"
      @choose="set({ figure: $event || null })"
    />, camera
    <ChoiceChip
      :value="judging.camera ?? ''"
      :choices="cameras"
      label="camera of the picture alone"
      @choose="set({ camera: $event || null })"
    />, raw
    <Switch
      :checked="judging.isRaw"
      size="small"
      aria-label="the picture alone is raw"
      @change="set({ isRaw: $event === true })"
    />
  </p>
</template>

<style scoped>
.judging {
  margin-top: 6px;
  padding-top: 4px;
  border-top: 1px solid var(--rule);
}
</style>
