<script setup lang="ts">
import { type Dial, type PictureRef } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { api } from '../../api';
import { useEffectStore } from '../../stores/effect';
import { ASSETS } from '../bench';
import ChoiceChip from '../chips/ChoiceChip.vue';
import PictureMenu from '../chips/PictureMenu.vue';
import VectorChip from '../chips/VectorChip.vue';
import { assetChoices } from '../choices/assetChoices';
import { dialable } from './given';

/** A dial that gives a place, a direction, a picture or a mesh: what it stands at. */
const props = defineProps<{ dial: Exclude<Dial, { kind: 'number' | 'switch' }> }>();
const emit = defineEmits<{ set: [part: Partial<Dial>, gesture: string | null] }>();
const store = useEffectStore();
const assets = inject(ASSETS)!;
const set = (part: Partial<Dial>, gesture: string | null = null) => emit('set', part, gesture);
const named = (refs: readonly PictureRef[]) =>
  [...new Map(refs.map(({ asset, name }) => [asset, name]))].map(([value, text]) => ({
    value,
    text,
    picture: api.thumbnailAddress(store.projectId, value),
  }));
/** What may be stood for: what the effect shows, or is drawn as, and what this dial stands for already. */
const used = computed(() => {
  const { dial } = props;
  if (dial.kind !== 'picture' && dial.kind !== 'mesh') return [];
  return named([dial.standsFor, ...dialable(store.effect!, dial.kind)]);
});
const rigs = computed(() => assetChoices(store.projectId, assets.value, 'rig'));
const refOf = (choices: readonly { value: string; text: string }[], asset: string): PictureRef => ({
  asset,
  name: choices.find(({ value }) => value === asset)!.text,
});
</script>

<template>
  <template v-if="dial.kind === 'place'">
    is at
    <VectorChip
      :value="dial.at"
      :label="dial.name"
      unit="m"
      :least="-1000"
      :most="1000"
      @change="(at, drag) => set({ at }, drag)"
    />
    in the world
  </template>
  <template v-else-if="dial.kind === 'direction'">
    is turned by
    <VectorChip
      :value="dial.turn"
      :label="dial.name"
      unit="°"
      :least="-360"
      :most="360"
      @change="(turn, drag) => set({ turn }, drag)"
    />
  </template>
  <template v-else>
    shows
    <PictureMenu v-if="dial.kind === 'picture'" :picture="dial.shows" @choose="$event && set({ shows: $event })" />
    <ChoiceChip
      v-else
      :value="dial.shows.asset"
      :choices="rigs"
      :label="dial.name"
      previews
      @choose="set({ shows: refOf(rigs, $event) })"
    />
    wherever
    <ChoiceChip
      :value="dial.standsFor.asset"
      :choices="used"
      :label="`${dial.name} stands for`"
      previews
      @choose="set({ standsFor: refOf(used, $event) })"
    />
    is set
  </template>
</template>
