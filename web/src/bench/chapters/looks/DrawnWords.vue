<script setup lang="ts">
import { isRibbon, type DrawnAs } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import { DRAWN_KINDS, useDrawnActs } from '../../acts/useDrawnActs';
import ChoiceChip from '../../chips/ChoiceChip.vue';
import BodyWords from './BodyWords.vue';
import HazeWords from './HazeWords.vue';
import LightWords from './LightWords.vue';
import MeshWords from './MeshWords.vue';
import RibbonWords from './RibbonWords.vue';

/** What the chosen layer's particles are drawn as. */
const store = useEffectStore();
const drawn = computed(() => store.chosen!.drawn);
const { choose } = useDrawnActs();
</script>

<template>
  <p>
    Drawn as
    <ChoiceChip
      :value="drawn.kind"
      :choices="DRAWN_KINDS"
      label="drawn as"
      previews
      @choose="choose($event as DrawnAs['kind'])"
    />.
  </p>
  <RibbonWords v-if="isRibbon(drawn)" />
  <MeshWords v-else-if="drawn.kind === 'mesh'" :drawn="drawn" />
  <LightWords v-else-if="drawn.kind === 'light'" />
  <HazeWords v-else-if="drawn.kind === 'haze'" :drawn="drawn" />
  <BodyWords v-else-if="drawn.kind === 'body'" :drawn="drawn" />
</template>
