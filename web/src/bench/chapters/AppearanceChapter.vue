<script setup lang="ts">
import { LAYER_SETTINGS } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ChoiceChip from '../ChoiceChip.vue';
import RibbonWords from './RibbonWords.vue';

const store = useEffectStore();
type Name = 'appearance.facing' | 'appearance.blend' | 'appearance.shape';
const value = (name: Name) => store.chosen!.settings[name].base.value;
const set = (name: Name, chosen: string) =>
  store.changeLayer(
    `choose the ${LAYER_SETTINGS[name].name}`,
    (layer) => (layer.settings[name].base = { kind: 'fixed', value: chosen }),
  );
const shapes = LAYER_SETTINGS['appearance.shape'].choices.map((choice) => ({ value: choice, text: `${choice}` }));
const facings = [
  { value: 'camera', text: 'facing the camera' },
  { value: 'ground', text: 'lying flat on the ground' },
  { value: 'own frame', text: 'standing as it is turned' },
];
const blends = [
  { value: 'additive', text: 'adding its light' },
  { value: 'normal', text: 'covering what is behind' },
];
const isSprite = computed(() => store.chosen!.drawn.kind === 'sprite');
const isAdditive = computed(() => value('appearance.blend') === 'additive');
</script>

<template>
  <RibbonWords />
  <p>
    <template v-if="isSprite">
      Each is a
      <ChoiceChip
        :value="value('appearance.shape')"
        :choices="shapes"
        label="picture"
        @choose="set('appearance.shape', $event)"
      />,
      <ChoiceChip
        :value="value('appearance.facing')"
        :choices="facings"
        label="facing"
        @choose="set('appearance.facing', $event)"
      />,
    </template>
    <template v-else>Soft toward both edges,</template>
    <ChoiceChip
      :value="value('appearance.blend')"
      :choices="blends"
      label="blending"
      @choose="set('appearance.blend', $event)"
    />.
  </p>
  <p class="quiet">
    {{
      isAdditive
        ? 'Added light never darkens: on a bright surround it is lost. Covering shows everywhere.'
        : 'Covering hides what is behind by the opacity.'
    }}
  </p>
</template>
