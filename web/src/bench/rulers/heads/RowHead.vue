<script setup lang="ts">
import { computed } from 'vue';
import type { LayerCount } from '@jinx/player/simulation';
import { useEffectStore } from '../../../stores/effect';
import { hexOfLinear } from '@jinx/core/maths';
import { settingText } from '../../entry/format';
import { keptComputed } from '../../values/keptComputed';
import { countText } from '../../entry/numbers';
import { useLayer } from '../../values/life';
import { ageGradient, ageShaper } from '../../values/shapers';
import { chosenLine, linesOf, readLine } from '../curves/lines';

/** A row's head: the layer's picture, name, living count and cost; when open, its lines on the life sheet. */
const props = defineProps<{
  id: string;
  countOf: (layerId: string) => LayerCount | undefined;
  /** Its place front to back, where rows do not stand so themselves. */
  drawNumber: number | null;
  isOpen: boolean;
}>();
const store = useEffectStore();
const { layer, life, measures } = useLayer(() => props.id);
const samples = life(12);
const dot = computed(() => {
  const best = samples.value.reduce((a, b) => (b.energy > a.energy ? b : a));
  return hexOfLinear(best.rgb);
});
const count = computed(() => props.countOf(props.id));
const living = computed(() => countText(count.value?.living ?? 0));
const cost = computed(() => `${(count.value?.milliseconds ?? 0).toFixed(1)} ms`);
const lines = keptComputed(() =>
  props.isOpen
    ? linesOf(store.effect!, props.id).flatMap((line) => {
        const read = readLine(store.effect!, line);
        if (!read) return [];
        const text = settingText(read.setting, read.declaration, (id) => measures.value.byId[id]?.name ?? '');
        return [{ ...line, text, isShaped: ageShaper(read.setting) !== null }];
      })
    : [],
);
/** The line that is edited: the one that was chosen, if this layer has it. */
const active = computed(() => chosenLine(lines.value, store.lifeLine)?.key);
</script>

<template>
  <div class="head">
    <div class="top">
      <span v-if="drawNumber !== null" class="draw number" title="Its place from front to back">{{
        drawNumber
      }}</span>
      <span class="dot" :style="{ '--dot': dot }" aria-hidden="true"></span>
      <span class="name" :class="{ off: layer.hidden }">{{ layer.name }}</span>
      <span class="counts number painted-apart">
        <span class="count" :data-count="layer.name">{{ living }}</span>
        <span class="cost">{{ cost }}</span>
      </span>
      <slot></slot>
    </div>
    <div v-if="isOpen" class="lines" role="radiogroup" aria-label="Line on the life sheet">
      <button
        v-for="line in lines"
        :key="line.key"
        type="button"
        class="plain line"
        role="radio"
        :aria-checked="active === line.key"
        :class="{ chosen: active === line.key }"
        @click.stop="store.lifeLine = line.address"
      >
        <span class="sample" :class="{ dashed: line.address.setting === 'life.opacity', flat: !line.isShaped }"></span
        >{{ line.word }}
        <span class="value">{{ line.text }}</span>
      </button>
      <div class="plain line still">
        <span class="sample colour" :style="{ background: dot }"></span>colour
        <span class="value">{{ ageGradient(layer.settings['life.colour']) ? 'gradient' : 'one colour' }}</span>
      </div>
    </div>
  </div>
</template>

<style scoped>
.head {
  padding: 0 8px 0 12px;
  overflow: hidden;
  display: flex;
  flex-direction: column;
  flex: 1;
  min-height: 0;
}
.top {
  flex: none;
  display: flex;
  align-items: center;
  gap: 8px;
  height: 24px;
}
.dot {
  width: 13px;
  height: 13px;
  flex: none;
  border-radius: 50%;
  background: radial-gradient(circle, var(--dot) 20%, transparent 72%);
}
.name {
  flex: 1;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.off {
  color: var(--dim);
  text-decoration: line-through;
}
.draw {
  font-size: 12.5px;
  color: var(--dim);
  min-width: 12px;
  margin-right: -3px;
}
.counts {
  display: flex;
  gap: 8px;
}
.count {
  color: var(--soft);
}
/* Where the row is pointed at, its flags stand in place of what it costs. */
:global(.row:hover .cost),
:global(.row:focus-within .cost),
:global(.row.open .cost) {
  display: none;
}
.cost {
  color: var(--dim);
  min-width: 46px;
  text-align: right;
  font-size: 12.5px;
}
.lines {
  display: flex;
  flex-direction: column;
  overflow: hidden auto;
  padding-left: 18px;
}
.line {
  white-space: nowrap;
  flex: none;
  display: flex;
  align-items: center;
  gap: 8px;
  text-align: left;
  height: 24px;
}
.still {
  cursor: default;
}
.line.chosen {
  color: var(--ink);
  background: #2a2a2d;
}
.value {
  margin-left: auto;
  flex: 0 1 auto;
  overflow: hidden;
  text-overflow: ellipsis;
  color: var(--dim);
  font-size: 12.5px;
  white-space: nowrap;
}
.sample {
  flex: none;
  width: 14px;
  border-top: 2px solid var(--accent);
}
.sample.dashed {
  border-top: 2px dashed #fff;
}
.sample.flat {
  border-top: 2px solid #606064;
}
.sample.colour {
  border: 0;
  height: 8px;
  border-radius: 2px;
}
</style>
