<script setup lang="ts">
import { atEffect, isRibbon, newDrawn, newRibbon, type DrawnAs, type Layer, type Place } from '@jinx/core/document';
import { drawLayerAs, drawnNow } from '@jinx/core/editing';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import { ENGINE } from '../../bench';
import { firstBlade } from '../../values/blade';
import ChoiceChip from '../../chips/ChoiceChip.vue';
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
/** Each chosen layer is drawn as it was when it was drawn so last, or as a new one of that kind. */
function choose(kind: string): void {
  store.changeLayers('choose how particles are drawn', (layer, id, draft) => {
    if (layer.drawn.kind === kind) return;
    const key = (of: string) => `${store.id}/${id}/${of}`;
    store.drawnBefore.set(key(layer.drawn.kind), drawnNow(layer));
    drawLayerAs(draft, id, made(kind as DrawnAs['kind'], layer), store.drawnBefore.get(key(kind)) ?? null);
  });
}
</script>

<template>
  <p>Drawn as <ChoiceChip :value="drawn.kind" :choices="KINDS" label="drawn as" previews @choose="choose" />.</p>
  <RibbonWords v-if="isRibbon(drawn)" />
  <MeshWords v-else-if="drawn.kind === 'mesh'" :drawn="drawn" />
  <LightWords v-else-if="drawn.kind === 'light'" />
  <HazeWords v-else-if="drawn.kind === 'haze'" :drawn="drawn" />
  <BodyWords v-else-if="drawn.kind === 'body'" :drawn="drawn" />
</template>
