<script setup lang="ts">
import { onClickOutside, useEventListener } from '@vueuse/core';
import { Input } from 'ant-design-vue';
import { computed, nextTick, ref, watch } from 'vue';
import { goOn } from '../entry/row';
import MovingPicture from '../../thumbnails/MovingPicture.vue';
import Thumbnail from '../../thumbnails/Thumbnail.vue';
import { Finder } from './finder';
import { closePick, openPick, type PickItem } from './pick';

/** The page's list to choose from, at whatever opened it. Typing filters it; what is pointed at is told. */
const root = ref<HTMLElement>();
const typed = ref('');
/** Which of the shown items is walked to. */
const at = ref(0);
const pick = openPick;
const finder = computed(() => new Finder<PickItem>(pick.value?.items() ?? []));
const shown = computed(() => {
  const offered = typed.value.trim() === '' ? null : pick.value?.offer?.(typed.value.trim());
  return offered ? [offered] : finder.value.find(typed.value);
});
const place = ref<Record<string, string>>({});
const [ROOM, WIDTH] = [380, 280];

function put(anchor: HTMLElement): void {
  const { left, top, bottom } = anchor.getBoundingClientRect();
  const isAbove = window.innerHeight - bottom < ROOM && top > window.innerHeight - bottom;
  place.value = {
    left: `${Math.max(4, Math.min(left, window.innerWidth - WIDTH))}px`,
    maxHeight: `${Math.min(ROOM, (isAbove ? top : window.innerHeight - bottom) - 10)}px`,
    ...(isAbove ? { bottom: `${window.innerHeight - top + 2}px` } : { top: `${bottom + 2}px` }),
  };
}
const field = () => root.value?.querySelector('input');
watch(
  pick,
  async (now) => {
    if (!now) return;
    typed.value = now.typed;
    at.value = Math.max(0, now.typed ? 0 : now.items().findIndex(({ value }) => value === now.chosen));
    put(now.anchor);
    await nextTick();
    field()?.focus({ preventScroll: true });
    reveal();
  },
  // One may be asked for before the list is there.
  { flush: 'post', immediate: true },
);
watch(typed, () => (at.value = 0));

const idOf = (n: number) => `pick-${n}`;
function reveal(): void {
  root.value?.querySelector(`#${idOf(at.value)}`)?.scrollIntoView({ block: 'nearest' });
}
function walkTo(to: number): void {
  const count = shown.value.length;
  if (count === 0) return;
  at.value = (to + count) % count;
  pick.value?.point(shown.value[at.value]!.value);
  void nextTick(reveal);
}
function choose(item: PickItem | undefined): void {
  const now = pick.value;
  if (!now || !item) return;
  closePick();
  now.choose(item.value);
}
/** Chooses, and from a chip in a row goes on to the next. */
function chooseAndGoOn(by: 1 | -1): void {
  const { anchor, chosen } = pick.value!;
  choose(shown.value[at.value]);
  if (!pick.value && chosen !== null) void goOn(() => anchor, by);
}
function keyDown(event: KeyboardEvent): void {
  const last = shown.value.length - 1;
  const walks: Record<string, number> = { ArrowDown: at.value + 1, ArrowUp: at.value - 1, PageDown: last, PageUp: 0 };
  const to = walks[event.key];
  if (to !== undefined) walkTo(to);
  else if (event.key === 'Enter') chooseAndGoOn(1);
  else if (event.key === 'Escape') closePick();
  else if (event.key === 'Tab') chooseAndGoOn(event.shiftKey ? -1 : 1);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
onClickOutside(root, () => pick.value && closePick());
useEventListener(window, 'resize', closePick);
useEventListener(
  window,
  'scroll',
  ({ target }) => pick.value && !root.value?.contains(target as Node) && put(pick.value.anchor),
  { capture: true, passive: true },
);
</script>

<template>
  <Teleport to="body">
    <div
      v-if="pick"
      ref="root"
      class="pick"
      :style="place"
      @mousedown.stop
      @keydown="keyDown"
      @pointerleave="pick.point(null)"
    >
      <Input
        v-model:value="typed"
        size="small"
        class="sought"
        :class="{ idle: typed === '' }"
        role="combobox"
        aria-autocomplete="list"
        aria-expanded="true"
        aria-controls="pick-list"
        :aria-activedescendant="shown.length ? idOf(at) : undefined"
        :aria-label="`find in ${pick.label}`"
        placeholder="type to find"
      />
      <div id="pick-list" class="list" role="listbox" :aria-label="pick.label">
        <template v-for="(item, n) in shown" :key="item.value"
          ><div v-if="item.group && item.group !== shown[n - 1]?.group" class="heading" role="presentation">
            {{ item.group }}
          </div>
          <div
            :id="idOf(n)"
            class="item"
            :class="{ at: n === at, chosen: item.value === pick.chosen }"
            role="option"
            :aria-selected="item.value === pick.chosen"
            :title="item.help"
            :data-value="item.value"
            @pointermove="at === n || walkTo(n)"
            @click="choose(item)"
          >
            <MovingPicture v-if="item.strip" :strip="item.strip" :plays="n === at" class="picture" />
            <Thumbnail v-else-if="item.picture" :address="item.picture" class="picture" />
            <i v-if="item.swatch" class="swatch" :style="{ background: item.swatch }"></i>{{ item.text }}
          </div></template
        >
        <p v-if="shown.length === 0" class="none quiet">Nothing is called so.</p>
      </div>
    </div>
  </Teleport>
</template>

<style scoped>
.pick {
  position: fixed;
  z-index: 1100;
  min-width: 150px;
  max-width: 280px;
  display: flex;
  flex-direction: column;
  padding: 3px;
  background: #232326;
  border: 1px solid #434347;
  border-radius: 4px;
  box-shadow: 0 6px 18px #000a;
  font-size: 14px;
}
.sought {
  margin-bottom: 3px;
  flex: none;
}
/* Nothing is typed yet: it takes no more room than a line of hint. */
.sought.idle {
  background: none;
  border-color: transparent;
  font-size: 12.5px;
}
.list {
  overflow: hidden auto;
  min-height: 0;
}
.item {
  padding: 2px 8px;
  border-radius: 3px;
  cursor: pointer;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.heading {
  padding: 5px 8px 1px;
  font-size: 12.5px;
  color: var(--dim);
}
.item.at {
  background: var(--chip-over);
}
.item.chosen {
  color: var(--accent);
}
.swatch {
  display: inline-block;
  width: 12px;
  height: 12px;
  margin-right: 6px;
  border-radius: 2px;
  vertical-align: -1px;
}
.picture {
  width: 56px;
  height: 35px;
  margin: 1px 7px 1px 0;
  vertical-align: middle;
}
.none {
  margin: 2px 8px;
}
</style>
