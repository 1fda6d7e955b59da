<script setup lang="ts">
import { Button } from 'ant-design-vue';
import type { ReadyKind } from '@jinx/core/building';
import { ownerOf } from '@jinx/core/document';
import { lifetimes } from '@jinx/core/checks';
import { wholeOf } from '@jinx/core/editing';
import { useStorage } from '@vueuse/core';
import { useElementSize } from './stage/elementSize';
import { computed, inject, nextTick, ref } from 'vue';
import type { LayerCount } from '@jinx/player/simulation';
import { useEffectStore } from '../stores/effect';
import { ENGINE, LAYER_ACTS } from './bench';
import { keptComputed } from './values/keptComputed';
import { plainNumber } from './entry/numbers';
import MenuButton from './chips/MenuButton.vue';
import { readyChoices } from './choices/readyChoices';
import GroupHead from './rulers/heads/GroupHead.vue';
import LifeStrip from './rulers/LifeStrip.vue';
import { PAD } from './rulers/layout';
import OpenLife from './rulers/OpenLife.vue';
import Playhead from './rulers/Playhead.vue';
import RowActs from './rulers/heads/RowActs.vue';
import RowFlags from './rulers/heads/RowFlags.vue';
import RowHead from './rulers/heads/RowHead.vue';
import { useDraggedRows } from './rulers/useDraggedRows';
import { rowsOf, type Arrangement, type Row } from './rulers/rows';
import TimeRuler from './rulers/TimeRuler.vue';
import { provideTimeView } from './rulers/timeView';
import TimeStrip from './rulers/TimeStrip.vue';
import { injectCommands } from './commands/registry';
import { useRulerSizes } from './rulers/useRulerSizes';

/** The rulers: a row per layer, across the effect's time and a particle's age. */
const props = defineProps<{ living: Readonly<Record<string, readonly number[]>> }>();
const emit = defineEmits<{ dropFiles: [files: File[], layerId: string] }>();
const store = useEffectStore();
const engine = inject(ENGINE)!;
const acts = inject(LAYER_ACTS)!;
const commands = injectCommands();
const holder = ref<HTMLElement>();
const rowsHolder = ref<HTMLElement>();
const { width } = useElementSize(holder);
const { height: rowsHeight } = useElementSize(rowsHolder);
const READY_KINDS = readyChoices();
const ROW = 24;
const NONE: readonly number[] = [];
const chosenArrangement = useStorage<Arrangement>('jinx rulers arrangement', 'grouped');
const folded = ref<ReadonlySet<string>>(new Set());
const hasGroups = computed(() => store.effect!.groups.order.length > 0);
const arrangement = computed(() => (hasGroups.value ? chosenArrangement.value : 'drawn'));
const rows = keptComputed(() => rowsOf(store.effect!, arrangement.value, folded.value));

const sizes = useRulerSizes(holder, width, () => rowsHeight.value - (rows.value.length - 1) * (ROW + 1) - 1);
const { split, headWidth, givenHeight, timeWidth, lifeWidth, columns, openHeight } = sizes;
const { divide, widen, widenHeads, heighten, heightenOpen } = sizes;
const isOpen = ({ kind, id }: Row) => kind === 'layer' && id === store.chosenId;
const { seconds: shownSeconds } = provideTimeView(() => store.effect!);
/** A layer that follows shows the other's particles, which cost nothing again. */
function countOf(id: string): LayerCount | undefined {
  const { effect } = wholeOf(store.effect!);
  const owner = effect.layers.byId[ownerOf(effect, id)]!;
  const count = engine.state.layers.find((other) => other.salt === owner.salt);
  return count && owner !== effect.layers.byId[id] ? { ...count, milliseconds: 0 } : count;
}
const lifeText = computed(() => {
  if (!store.chosen) return '';
  const [low, , high] = lifetimes(store.effect!, store.chosenId);
  const seconds = low === high ? `${plainNumber(low)} s` : `${plainNumber(low)} – ${plainNumber(high)} s`;
  const { effect } = wholeOf(store.effect!);
  const owner = ownerOf(effect, store.chosenId);
  // What follows others has no age of its own; what is born on others has one.
  if (owner !== store.chosenId) return `age of ${effect.layers.byId[owner]!.name}, ${seconds}`;
  return store.chosen.source.kind === 'particles' ? `its own age, ${seconds}` : seconds;
});

const seek = (seconds: number) => engine.playback.seekSheet(store.effect!.stretches, seconds);
function fold(id: string): void {
  const next = new Set(folded.value);
  if (!next.delete(id)) next.add(id);
  folded.value = next;
}
/** Chooses a row; with Ctrl a layer beside the others, with Shift all from the first to it. */
function choose(row: Row, event: MouseEvent | KeyboardEvent): void {
  if (row.kind === 'group') return store.chooseGroup(row.id);
  const layers = rows.value.filter(({ kind }) => kind === 'layer').map(({ id }) => id);
  if (event.shiftKey && store.chosenId) {
    const [from, to] = [layers.indexOf(store.chosenId), layers.indexOf(row.id)];
    const between = layers.slice(Math.min(from, to), Math.max(from, to) + 1);
    return store.choose([store.chosenId, ...between.filter((id) => id !== store.chosenId)]);
  }
  if (event.ctrlKey || event.metaKey) {
    const others = store.chosenIds.filter((id) => id !== row.id);
    return store.choose(others.length < store.chosenIds.length && others.length > 0 ? others : [...others, row.id]);
  }
  store.choose([row.id]);
}
const isChosen = ({ kind, id }: Row) =>
  kind === 'group' ? store.groupId === id : store.page === 'layers' && store.chosenIds.includes(id);
/** One stop of Tab: the chosen row, or the first. */
const walkedIndex = computed(() => Math.max(0, rows.value.findIndex(isChosen)));
function walk(index: number, event: KeyboardEvent): void {
  const row = rows.value[index];
  if (!row) return;
  choose(row, event);
  void nextTick(() => rowsHolder.value?.querySelector<HTMLElement>(`[data-row="${row.id}"]`)?.focus());
}

/** Keys on a row. On a layer's they act on all that are chosen with it; Alt with the arrows moves it, the arrows alone walk the rows. */
function keyDown(event: KeyboardEvent, row: Row, index: number): void {
  if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey) return;
  const { id, kind } = row;
  const isLayer = kind === 'layer';
  const keys: Record<string, () => void> = {
    ArrowUp: () => (event.altKey && isLayer ? acts.moveBy(id, -1) : walk(index - 1, event)),
    ArrowDown: () => (event.altKey && isLayer ? acts.moveBy(id, 1) : walk(index + 1, event)),
    ...(isLayer
      ? {
          Delete: () => acts.remove(id),
        }
      : {
          ArrowLeft: () => !folded.value.has(id) && fold(id),
          ArrowRight: () => folded.value.has(id) && fold(id),
          Enter: () => store.chooseGroup(id),
          Delete: () => acts.removeGroup(id),
        }),
  };
  const act = keys[event.key];
  if (!act) return;
  event.preventDefault();
  act();
}

const list = ref<HTMLElement>();
const { over, isInto } = useDraggedRows(
  list,
  () => rows.value,
  () => arrangement.value === 'grouped',
  acts,
);
/** Files that are dropped on a row are for its layer. */
function dropOn(event: DragEvent, row: Row): void {
  const files = [...(event.dataTransfer?.files ?? [])];
  if (files.length === 0) return;
  over.value = '';
  emit('dropFiles', files, row.kind === 'layer' ? row.id : store.chosenId);
}
defineExpose({ add: acts.add });
</script>

<template>
  <section ref="holder" class="rulers" data-guide="bench#rulers" aria-label="Rulers">
    <div class="ruler-heads" :style="columns">
      <span class="title">
        <Button
          type="text"
          :class="{ on: store.page === 'effect' }"
          title="Palette, measures and dials, size, tempo and sides of the whole effect"
          @click="store.page = 'effect'"
        >
          Whole effect
        </Button>
        <Button
          v-if="hasGroups"
          type="text"
          title="Whether rows stand as they are drawn, front to back, or under their groups"
          @click="chosenArrangement = arrangement === 'drawn' ? 'grouped' : 'drawn'"
        >
          {{ arrangement === 'drawn' ? 'Front to back' : 'By group' }}
        </Button>
        <Button type="link" @click="acts.add">Add a layer</Button>
        <MenuButton
          label="ready…"
          :choices="READY_KINDS"
          title="A layer that is something at once, where the chosen one stands"
          previews
          @choose="acts.addReady($event as ReadyKind)"
        />
      </span>
      <TimeRuler :width="timeWidth" @seek="seek" />
      <span class="ages quiet number"
        ><span>birth</span><span>{{ lifeText }}</span
        ><span>death</span></span
      >
    </div>
    <div ref="rowsHolder" class="rows">
      <div ref="list" role="treegrid" aria-label="Layers" aria-multiselectable="true">
        <div
          v-for="(row, index) in rows"
          :key="row.id"
          class="row"
          :class="{
            open: isOpen(row),
            chosen: isChosen(row),
            over: isInto && over === row.id,
            group: row.kind === 'group',
          }"
          role="row"
          :tabindex="index === walkedIndex ? 0 : -1"
          :aria-level="row.depth + 1"
          :aria-selected="isChosen(row)"
          :aria-expanded="row.kind === 'group' ? !folded.has(row.id) : undefined"
          :aria-label="row.kind === 'group' ? `group ${row.name}` : row.name"
          :data-row="row.id"
          :data-kind="row.kind"
          :style="{ ...columns, height: `${isOpen(row) ? openHeight : ROW}px`, '--depth': row.depth }"
          @click="choose(row, $event)"
          @keydown="keyDown($event, row, index)"
          @dragover.prevent="over = row.id"
          @dragleave="over = ''"
          @drop.prevent="dropOn($event, row)"
        >
          <div class="head-cell" role="gridcell">
            <GroupHead
              v-if="row.kind === 'group'"
              :id="row.id"
              :is-folded="folded.has(row.id)"
              :count-of="countOf"
              @fold="fold(row.id)"
            />
            <template v-else>
              <RowHead :id="row.id" :count-of="countOf" :draw-number="row.drawNumber" :is-open="isOpen(row)">
                <RowFlags :id="row.id" :acts="acts" />
              </RowHead>
              <RowActs v-if="isOpen(row)" :id="row.id" :acts="acts" @clip="commands.run('layer.clip')" />
            </template>
          </div>
          <template v-if="row.kind === 'layer'">
            <div role="gridcell" class="cell">
              <TimeStrip
                :layer-id="row.id"
                :width="timeWidth"
                :height="isOpen(row) ? openHeight : ROW"
                :living="props.living[row.id] ?? NONE"
                :is-open="isOpen(row)"
              />
            </div>
            <div role="gridcell" class="cell">
              <!-- What is done on the open sheet is for all that are chosen: it leaves the choice alone. -->
              <OpenLife v-if="isOpen(row)" :width="lifeWidth" :height="openHeight" @click.stop />
              <LifeStrip v-else :layer-id="row.id" :width="lifeWidth" :height="ROW" />
              <div
                v-if="isOpen(row)"
                class="heighten"
                role="separator"
                aria-orientation="horizontal"
                aria-label="Height of the open row"
                title="Drag to make the open row higher; double click to let it take what there is"
                tabindex="0"
                :aria-valuenow="openHeight"
                @pointerdown.stop="heightenOpen"
                @dblclick="givenHeight = null"
                @keydown.up.stop="heighten(openHeight - 16)"
                @keydown.down.stop="heighten(openHeight + 16)"
              ></div>
            </div>
          </template>
        </div>
      </div>
      <p v-if="rows.length === 0" class="quiet empty">
        A layer is one population of particles. Add one above, then set its chapters at the right.
      </p>
    </div>
    <Playhead :left="headWidth + PAD" :width="timeWidth - 2 * PAD" :seconds="shownSeconds" />
    <div
      class="divider"
      role="separator"
      aria-orientation="vertical"
      aria-label="Width of the rows' heads"
      tabindex="0"
      :aria-valuenow="headWidth"
      :style="{ left: `${headWidth - 4}px` }"
      @pointerdown="widenHeads"
      @keydown.left="widen(headWidth - 12)"
      @keydown.right="widen(headWidth + 12)"
    ></div>
    <div
      class="divider"
      role="separator"
      aria-orientation="vertical"
      aria-label="Share of time sheet and life sheet"
      tabindex="0"
      :aria-valuenow="Math.round(split * 100)"
      :style="{ left: `${headWidth + timeWidth - 3}px` }"
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
  padding: 0 6px 0 8px;
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  white-space: nowrap;
  overflow: hidden;
  font-size: 12.5px;
}
.title :deep(button) {
  padding-inline: 3px;
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
  position: relative;
  display: grid;
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
  overflow: clip;
}
.row.chosen {
  background: #2b2b2f;
  box-shadow: inset 2px 0 0 var(--accent);
}
.row.over {
  box-shadow: inset 0 0 0 1px var(--accent);
}
.row.dragged {
  opacity: 0.5;
}
.row.open {
  background: #1d1d1f;
  cursor: default;
}
.row:focus-visible {
  outline-offset: -2px;
}
.row.open.chosen {
  background: #1d1d1f;
}
.heighten {
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  height: 5px;
  cursor: row-resize;
  touch-action: none;
}
.heighten:hover {
  background: #dfe87530;
}
.head-cell {
  height: 100%;
  min-height: 0;
  box-sizing: border-box;
  padding-left: calc(var(--depth) * 12px);
  border-right: 1px solid var(--rule);
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.cell {
  display: contents;
}
.cell:nth-child(2) > * {
  border-right: 1px solid var(--rule);
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
