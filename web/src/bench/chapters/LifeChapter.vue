<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { formatAddress, type Colour } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ColourWords from '../chips/ColourWords.vue';
import NumberChip from '../chips/NumberChip.vue';
import SettingChip from '../chips/SettingChip.vue';
import VectorSpreadChip from '../chips/VectorSpreadChip.vue';
import TintWords from './looks/TintWords.vue';
import ChapterHead from './ChapterHead.vue';
import ChannelWords from './ChannelWords.vue';
import { ageGradient, setAgeGradient } from '../values/shapers';

const store = useEffectStore();
const colour = computed(() => store.chosen!.settings['life.colour']);
const base = computed<Colour>(() =>
  colour.value.base.kind === 'fixed' ? colour.value.base.value : { hex: '#ffffff' },
);
const isInOwnFrame = computed(() => store.chosen!.settings['appearance.facing'].base.value === 'own frame');
const inLives = computed(() => store.chosen!.settings['life.turns'].base.value === 'turns a life');
const gradient = computed(() => ageGradient(colour.value));

const setColour = (value: Colour, isDrag: boolean) =>
  store.changeLayers(
    'set colour',
    (layer) => (layer.settings['life.colour'].base = { kind: 'fixed', value }),
    isDrag ? 'colour' : null,
  );
const shape = () =>
  store.changeLayers('shape colour', (layer) =>
    setAgeGradient(
      layer.settings['life.colour'],
      {
        order: ['start', 'end'],
        byId: {
          start: { at: { anchor: 'share', value: 0 }, colour: base.value },
          end: { at: { anchor: 'share', value: 1 }, colour: base.value },
        },
      },
      store.newId(),
    ),
  );
const unshape = () =>
  store.changeLayers('unshape colour', (layer) => (layer.settings['life.colour'].shapers = { order: [], byId: {} }));
</script>

<template>
  <ChapterHead chapter="life" />
  <p>
    Each is <NumberChip setting="life.size" /> across, <NumberChip setting="life.opacity" /> opaque, glowing
    <NumberChip setting="life.intensity" />.
  </p>
  <p v-if="gradient">
    Its colour follows the gradient on the life sheet.
    <Button type="link" @click="unshape">One colour instead</Button>
  </p>
  <p v-else>
    Its colour is
    <ColourWords
      :colour="base"
      label="colour"
      :class="{ muted: colour.muted }"
      :data-address="formatAddress({ kind: 'layer', layer: store.chosenId, setting: 'life.colour' })"
      @change="setColour"
    />
    <Button type="link" @click="shape">Change it over age</Button>
  </p>
  <TintWords />
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
