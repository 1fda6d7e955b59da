<script setup lang="ts">
import { Checkbox } from 'ant-design-vue';
import { structuredCopy, type Effect, type Scaling } from '@jinx/core/document';
import { consequenceOf, QUANTITIES, resize, type Quantity } from '@jinx/core/editing';
import { computed, ref, shallowRef, watch } from 'vue';
import { useEffectStore } from '../stores/effect';
import PlainChip from './chips/PlainChip.vue';

/** The two handles that make an effect larger and faster by law, and what is held the while. */
const store = useEffectStore();
const HELD: Record<Quantity, string> = {
  sizes: 'particle sizes',
  distances: 'places and shapes',
  speeds: 'speeds',
  pushes: 'forces',
  times: 'times',
  births: 'births',
  turning: 'turning',
};
/** How much larger and faster it has been made since it was last otherwise changed. */
const scaling = ref<Scaling>({ size: 1, tempo: 1 });
const held = ref<readonly Quantity[]>([]);
const limited = ref<readonly string[]>([]);
/** What it is counted from, and what came of it. */
const from = shallowRef<Effect | null>(null);
const made = shallowRef<Effect | null>(null);

watch(
  () => store.effect,
  (effect) => {
    if (effect === made.value) return;
    // Changed by something else, or undone: from here on it is counted anew.
    scaling.value = { size: 1, tempo: 1 };
    from.value = made.value = null;
    limited.value = [];
  },
);
function set(to: Partial<Scaling>, gesture: string | null): void {
  const start = from.value ?? store.effect!;
  const next = { ...scaling.value, ...to };
  store.change(
    'set size and tempo',
    (draft) => {
      Object.assign(draft, structuredCopy(start));
      limited.value = resize(draft, next, new Set(held.value)).limited;
    },
    gesture ?? 'size and tempo',
  );
  [from.value, made.value, scaling.value] = [start, store.effect, next];
}
function hold(quantities: readonly Quantity[]): void {
  held.value = quantities;
  if (from.value) set({}, null);
}
const consequences = computed(() => held.value.flatMap((quantity) => consequenceOf(quantity, scaling.value) ?? []));
</script>

<template>
  <p>
    Made
    <PlainChip
      :value="scaling.size"
      label="times as large"
      :least="0.05"
      :most="20"
      @change="(size, drag) => set({ size }, drag)"
    />
    times as large and
    <PlainChip
      :value="scaling.tempo"
      label="times as fast"
      :least="0.05"
      :most="20"
      @change="(tempo, drag) => set({ tempo }, drag)"
    />
    times as fast, it keeps its picture: lengths, speeds, forces, times, rates, drags and swirls go together.
  </p>
  <p>
    Held as they are:
    <Checkbox.Group
      :value="[...held]"
      :options="QUANTITIES.map((value) => ({ value, label: HELD[value] }))"
      @change="hold($event as Quantity[])"
    />
  </p>
  <p v-for="sentence in consequences" :key="sentence" class="quiet">{{ sentence }}</p>
  <p v-if="limited.length" class="quiet" role="status">
    At its limit, and so not as the law would have it: {{ limited.join(', ') }}.
  </p>
</template>
