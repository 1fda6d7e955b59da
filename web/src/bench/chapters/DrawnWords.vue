<script setup lang="ts">
import {
  atEffect,
  fitLook,
  isRibbon,
  newDrawn,
  newRibbon,
  type DrawnAs,
  type Layer,
  type Place,
} from '@jinx/core/document';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { firstBlade } from '../blade';
import ChoiceChip from '../ChoiceChip.vue';
import BodyWords from './BodyWords.vue';
import HazeWords from './HazeWords.vue';
import LightWords from './LightWords.vue';
import MeshWords from './MeshWords.vue';
import RibbonWords from './RibbonWords.vue';

/** What the chosen layer's particles are drawn as. */
const store = useEffectStore();
const engine = inject(ENGINE)!;
const drawn = computed(() => store.chosen!.drawn);
const KINDS: { value: DrawnAs['kind']; text: string }[] = [
  { value: 'sprite', text: 'sprites, each by itself' },
  { value: 'mesh', text: 'meshes' },
  { value: 'trail', text: 'trails behind them' },
  { value: 'strand', text: 'strands through them' },
  { value: 'blade', text: 'the sweep of a blade' },
  { value: 'beam', text: 'beams' },
  { value: 'light', text: 'lights' },
  { value: 'haze', text: 'haze that bends what is behind' },
  { value: 'body', text: 'the skin of a figure' },
];

function made(kind: DrawnAs['kind'], layer: Layer): DrawnAs {
  if (kind === 'sprite') return { kind };
  if (kind === 'mesh' || kind === 'light' || kind === 'haze') return newDrawn(kind);
  if (kind === 'body') return newDrawn(kind, store.effect!.stage.things.order[0] ?? 'figure');
  const places: [Place, Place] =
    'from' in layer.drawn
      ? [layer.drawn.from, layer.drawn.to]
      : kind === 'blade'
        ? firstBlade(engine.rigs.value)
        : [atEffect([0, 1, 0]), atEffect([2, 1, 0])];
  return newRibbon(kind, ...places);
}
/** What comes with a kind, so that it is seen at once: a mesh is solid and lit. */
function choose(kind: string): void {
  store.changeLayers('choose how particles are drawn', (layer) => {
    const { settings } = layer;
    if (kind === 'mesh' && settings['appearance.blend'].base.value === 'additive') {
      settings['appearance.blend'].base.value = 'solid';
      settings['appearance.lit'].base.value = 'card';
      if (layer.look.kind === 'own') layer.look.steps = { order: [], byId: {} };
    }
    layer.drawn = made(kind as DrawnAs['kind'], layer);
    fitLook(layer, isRibbon(layer.drawn));
  });
}
</script>

<template>
  <p>Drawn as <ChoiceChip :value="drawn.kind" :choices="KINDS" label="drawn as" @choose="choose" />.</p>
  <RibbonWords v-if="isRibbon(drawn)" />
  <MeshWords v-else-if="drawn.kind === 'mesh'" :drawn="drawn" />
  <LightWords v-else-if="drawn.kind === 'light'" />
  <HazeWords v-else-if="drawn.kind === 'haze'" :drawn="drawn" />
  <BodyWords v-else-if="drawn.kind === 'body'" :drawn="drawn" />
</template>
