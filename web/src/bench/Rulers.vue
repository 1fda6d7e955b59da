<script setup lang="ts">
import {
  copiedLayer,
  listed,
  moved,
  newLayer,
  ownerOf,
  removeLayer,
  withItem,
  type Layer,
} from '@jinx/core/document';
import { lifetimes } from '@jinx/core/checks';
import { EffectClock } from '@jinx/core/simulation';
import { useElementSize } from './elementSize';
import { computed, inject, nextTick, ref } from 'vue';
import type { LayerCount } from '../engine/protocol';
import { random32, useEffectStore } from '../stores/effect';
import { ENGINE } from './bench';
import { plainNumber } from './format';
import LifeStrip from './rulers/LifeStrip.vue';
import { HEAD_WIDTH, PAD } from './rulers/layout';
import OpenLife from './rulers/OpenLife.vue';
import Playhead from './rulers/Playhead.vue';
import RowHead from './rulers/RowHead.vue';
import TimeRuler from './rulers/TimeRuler.vue';
import TimeStrip from './rulers/TimeStrip.vue';
import type { LifeSetting } from './shapers';

/** The rulers: a row per layer, across the effect's time and a particle's age. */
const props = defineProps<{ living: Readonly<Record<string, readonly number[]>> }>();
const emit = defineEmits<{ dropFile: [file: File, layerId: string] }>();
const store = useEffectStore();
const engine = inject(ENGINE)!;
const holder = ref<HTMLElement>();
const rowsHolder = ref<HTMLElement>();
const { width } = useElementSize(holder);
const { height: rowsHeight } = useElementSize(rowsHolder);
const split = ref(0.46);
const active = ref<LifeSetting>('life.size');
const ROW = 24;
const layers = computed(() => listed(store.effect!.layers));
const timeWidth = computed(() => Math.round((width.value - HEAD_WIDTH) * split.value));
const lifeWidth = computed(() => width.value - HEAD_WIDTH - timeWidth.value - 1);
const openHeight = computed(() => Math.max(152, rowsHeight.value - (layers.value.length - 1) * (ROW + 1) - 1));
const clock = computed(() => new EffectClock(store.effect!.stretches));
/** A layer that follows shows the other's particles, which cost nothing again. */
function countOf(id: string, layer: Layer): LayerCount | undefined {
  const { salt } = store.effect!.layers.byId[ownerOf(store.effect!, id)]!;
  const count = engine.state.layers.find((other) => other.salt === salt);
  return count && salt !== layer.salt ? { ...count, milliseconds: 0 } : count;
}
const lifeText = computed(() => {
  if (!store.chosen) return '';
  const [low, , high] = lifetimes(store.effect!, store.chosenId);
  return low === high ? `${plainNumber(low)} s` : `${plainNumber(low)} – ${plainNumber(high)} s`;
});

const seek = (seconds: number) => engine.seekSheet(store.effect!.stretches, seconds);
function divide(event: PointerEvent): void {
  const target = event.currentTarget as HTMLElement;
  target.setPointerCapture(event.pointerId);
  const box = holder.value!.getBoundingClientRect();
  target.onpointermove = (move) => {
    const share = (move.clientX - box.left - HEAD_WIDTH) / (box.width - HEAD_WIDTH);
    split.value = share < 0.12 ? 0.04 : share > 0.88 ? 0.96 : share;
  };
  target.onpointerup = () => (target.onpointermove = null);
}

function add(): void {
  const id = store.newId();
  store.change('add a layer', (draft) => {
    const layer = newLayer(`Layer ${draft.layers.order.length + 1}`, random32());
    draft.layers = withItem(draft.layers, id, layer, 0);
  });
  store.chosenId = id;
}
function copy(id: string): void {
  const made = store.newId();
  store.change('copy a layer', (draft) => {
    const layer = draft.layers.byId[id]!;
    draft.layers = withItem(
      draft.layers,
      made,
      copiedLayer(layer, `${layer.name}, copy`.slice(0, 80), random32()),
      draft.layers.order.indexOf(id),
    );
  });
  store.chosenId = made;
}
function remove(id: string): void {
  store.change('delete a layer', (draft) => removeLayer(draft, id));
}
const flip = (id: string, field: 'hidden' | 'solo' | 'locked', label: string) =>
  store.change(label, (draft) => (draft.layers.byId[id]![field] = !draft.layers.byId[id]![field]));
const move = (id: string, to: number) =>
  store.change(
    'reorder layers',
    (draft) => (draft.layers = moved(draft.layers, id, Math.max(0, Math.min(draft.layers.order.length - 1, to)))),
  );

/** Keys on a row: H hides, S shows it alone, D copies, Delete deletes; Alt with the arrows moves it, the arrows alone choose. */
function keyDown(event: KeyboardEvent, id: string, index: number): void {
  if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey) return;
  const keys: Record<string, () => void> = {
    h: () => flip(id, 'hidden', 'hide a layer'),
    s: () => flip(id, 'solo', 'see a layer alone'),
    d: () => copy(id),
    Delete: () => remove(id),
    ArrowUp: () => (event.altKey ? move(id, index - 1) : choose(layers.value[index - 1]?.id)),
    ArrowDown: () => (event.altKey ? move(id, index + 1) : choose(layers.value[index + 1]?.id)),
  };
  const act = keys[event.key];
  if (!act) return;
  event.preventDefault();
  act();
}
function choose(id: string | undefined): void {
  if (!id) return;
  store.chosenId = id;
  void nextTick(() => rowsHolder.value?.querySelector<HTMLElement>(`[data-row="${id}"]`)?.focus());
}

const dragged = ref('');
function dropOn(event: DragEvent, index: number, id: string): void {
  const file = event.dataTransfer?.files[0];
  if (file) return emit('dropFile', file, id);
  if (dragged.value) move(dragged.value, index);
  dragged.value = '';
}
defineExpose({ add });
</script>

<template>
  <section ref="holder" class="rulers" aria-label="Rulers">
    <div class="ruler-heads" :style="{ gridTemplateColumns: `${HEAD_WIDTH}px ${timeWidth}px 1fr` }">
      <span class="title">
        <span class="quiet">Front to back</span>
        <button type="button" class="plain act" @click="add">Add a layer</button>
      </span>
      <TimeRuler :width="timeWidth" @seek="seek" />
      <span class="ages quiet number"
        ><span>birth</span><span>{{ lifeText }}</span
        ><span>death</span></span
      >
    </div>
    <div ref="rowsHolder" class="rows">
      <div role="list" aria-label="Layers">
        <div
          v-for="({ id, item }, index) in layers"
          :key="id"
          class="row"
          :class="{ open: id === store.chosenId }"
          role="listitem"
          tabindex="0"
          :aria-current="id === store.chosenId"
          :aria-label="item.name"
          :data-row="id"
          :style="{
            gridTemplateColumns: `${HEAD_WIDTH}px ${timeWidth}px 1fr`,
            height: `${id === store.chosenId ? openHeight : ROW}px`,
          }"
          @click="store.chosenId = id"
          @keydown="keyDown($event, id, index)"
          @dragover.prevent
          @drop.prevent="dropOn($event, index, id)"
        >
          <div class="head-cell" :draggable="true" @dragstart="dragged = id" @dragend="dragged = ''">
            <RowHead
              :id="id"
              :count="countOf(id, item)"
              :is-open="id === store.chosenId"
              :active="active"
              @activate="active = $event"
            />
            <div v-if="id === store.chosenId" class="row-acts">
              <button type="button" class="plain" title="H" @click.stop="flip(id, 'hidden', 'hide a layer')">
                {{ item.hidden ? 'Show' : 'Hide' }}
              </button>
              <button
                type="button"
                class="plain"
                title="S"
                :class="{ on: item.solo }"
                @click.stop="flip(id, 'solo', 'see a layer alone')"
              >
                Alone
              </button>
              <button type="button" class="plain" title="D" @click.stop="copy(id)">Copy</button>
              <button
                type="button"
                class="plain"
                title="Alt ↑"
                aria-label="Move toward the front"
                @click.stop="move(id, index - 1)"
              >
                ↑
              </button>
              <button
                type="button"
                class="plain"
                title="Alt ↓"
                aria-label="Move toward the back"
                @click.stop="move(id, index + 1)"
              >
                ↓
              </button>
              <button type="button" class="plain" title="Delete" @click.stop="remove(id)">Delete</button>
            </div>
          </div>
          <TimeStrip
            :layer-id="id"
            :width="timeWidth"
            :height="id === store.chosenId ? openHeight : ROW"
            :living="props.living[id] ?? []"
            :is-open="id === store.chosenId"
          />
          <OpenLife v-if="id === store.chosenId" :width="lifeWidth" :height="openHeight" :active="active" />
          <LifeStrip v-else :layer-id="id" :width="lifeWidth" :height="ROW" />
        </div>
      </div>
      <p v-if="layers.length === 0" class="quiet empty">
        A layer is one population of particles. Add one above, then give it a source, births and motion in the
        chapters at the right.
      </p>
    </div>
    <Playhead :left="HEAD_WIDTH + PAD" :width="timeWidth - 2 * PAD" :length="clock.length" />
    <div
      class="divider"
      role="separator"
      aria-orientation="vertical"
      aria-label="Share of time sheet and life sheet"
      tabindex="0"
      :aria-valuenow="Math.round(split * 100)"
      :style="{ left: `${HEAD_WIDTH + timeWidth - 3}px` }"
      @pointerdown="divide"
      @keydown.left="split = Math.max(0.04, split - 0.04)"
      @keydown.right="split = Math.min(0.96, split + 0.04)"
    ></div>
  </section>
</template>

<style scoped>
.rulers {
  position: relative;
  display: flex;
  flex-direction: column;
  min-height: 260px;
  overflow: hidden;
  background: #161617;
}
.ruler-heads {
  display: grid;
  height: 28px;
  flex: none;
  align-items: center;
  border-bottom: 1px solid var(--rule);
}
.title {
  padding: 0 10px 0 12px;
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  font-size: 12.5px;
}
.ages {
  display: flex;
  justify-content: space-between;
  padding: 0 10px 0 11px;
  font-size: 12.5px;
}
.rows {
  flex: 1;
  overflow: hidden auto;
}
.row {
  display: grid;
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
  overflow: hidden;
}
.row.open {
  background: #1d1d1f;
  cursor: default;
}
.row:focus-visible {
  outline-offset: -2px;
}
.head-cell {
  border-right: 1px solid var(--rule);
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.row > :nth-child(2) {
  border-right: 1px solid var(--rule);
}
.row-acts {
  margin-top: auto;
  padding: 2px 8px 3px 10px;
  display: flex;
  gap: 2px;
  font-size: 12.5px;
}
.empty {
  padding: 4px 12px;
  max-width: 60ch;
}
.divider {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 6px;
  cursor: col-resize;
  touch-action: none;
}
.divider:hover {
  background: #dfe87530;
}
</style>
