<script setup lang="ts">
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import NumberChip from '../chips/NumberChip.vue';
import SettingChip from '../chips/SettingChip.vue';
import VectorSpreadChip from '../chips/VectorSpreadChip.vue';
import ColourSettingChip from '../colour/ColourSettingChip.vue';
import ColourShapers from '../colour/ColourShapers.vue';
import AgeGradientWords from '../colour/AgeGradientWords.vue';
import ChapterHead from './ChapterHead.vue';
import ChannelWords from './ChannelWords.vue';

const store = useEffectStore();
const isInOwnFrame = computed(() => store.chosen!.settings['appearance.facing'].base.value === 'own frame');
const inLives = computed(() => store.chosen!.settings['life.turns'].base.value === 'turns a life');
</script>

<template>
  <ChapterHead chapter="life" />
  <p>
    Each is <NumberChip setting="life.size" /> across, <NumberChip setting="life.opacity" /> opaque, glowing
    <NumberChip setting="life.intensity" />.
  </p>
  <p>
    Its colour is <ColourSettingChip setting="life.colour" label="colour" />.
    <AgeGradientWords />
    <ColourShapers setting="life.colour" label="colour" leaves-out="age" />
  </p>
  <p>
    It starts turned by <NumberChip setting="life.angle" /><template v-if="!isInOwnFrame">
      from <SettingChip setting="life.aligned"
    /></template>
    and turns <NumberChip setting="life.turning" :unit="inLives ? '' : '°'" /><SettingChip setting="life.turns" />.
  </p>
  <p v-if="isInOwnFrame">
    It is tilted by <VectorSpreadChip setting="life.tilt" label="tilt" />, and turns about the axle
    <VectorSpreadChip setting="life.axle" label="axle" />.
  </p>
  <ChannelWords />
</template>
