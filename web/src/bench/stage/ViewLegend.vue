<script setup lang="ts">
import { listed } from '@jinx/core/document';
import { layerTone, RAMP, type StageView } from '@jinx/stage';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { scaleOf } from './views';

/** What the tones of the stage's view mean. */
const props = defineProps<{ view: StageView; instants: readonly number[]; have: number }>();
const store = useEffectStore();
const scale = computed(() => scaleOf(props.view));
const css = (tone: readonly number[]) => `rgb(${tone.map((c) => Math.round(c * 255)).join(' ')})`;
const layers = computed(() =>
  props.view === 'layer'
    ? listed(store.effect!.layers).map(({ id, item }, n) => ({ id, name: item.name, tone: css(layerTone(n)) }))
    : [],
);
const SENTENCES: Partial<Record<StageView, string>> = {
  grey: 'How bright it is, without its hues',
  silhouette: 'As large as a game shows it; white is now, the lines are other instants',
  particle: 'Each particle in a tone of its own',
};
const ramp = `linear-gradient(to right, ${RAMP.join(', ')})`;
</script>

<template>
  <div v-if="view !== 'picture'" class="legend" role="status" aria-label="what the tones mean">
    <span v-if="SENTENCES[view]">{{ SENTENCES[view] }}</span>
    <template v-if="view === 'silhouette'">
      <span class="scale">
        <i :style="{ background: ramp }"></i>
        <span v-for="(seconds, n) in instants" :key="n" class="number">{{ seconds.toFixed(2) }}</span> s
      </span>
      <span v-if="have < instants.length" class="quiet">computing {{ have }} of {{ instants.length }}</span>
    </template>
    <span v-if="scale.length > 0" class="scale" :aria-label="view">
      <i :style="{ background: ramp }"></i>
      <span v-for="({ text }, n) in scale" :key="n" class="number">{{ text }}</span>
    </span>
    <span v-for="{ id, name, tone } in layers" :key="id" class="layer"
      ><i :style="{ background: tone }"></i>{{ name }}</span
    >
  </div>
</template>

<style scoped>
.legend {
  flex: none;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 16px;
  padding: 3px 10px 4px;
  border-top: 1px solid var(--rule);
  font-size: 12.5px;
  color: #d6d6d8;
}
.scale {
  position: relative;
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding-top: 12px;
  min-width: 180px;
}
.scale i {
  position: absolute;
  top: 2px;
  left: 0;
  right: 0;
  height: 7px;
  border-radius: 2px;
}
.layer {
  display: flex;
  align-items: center;
  gap: 6px;
}
.layer i {
  width: 10px;
  height: 10px;
  border-radius: 2px;
}
</style>
