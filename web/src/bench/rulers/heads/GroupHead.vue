<script setup lang="ts">
import { layersWithin, wholeOf } from '@jinx/core/editing';
import { computed } from 'vue';
import type { LayerCount } from '@jinx/player/simulation';
import { keptComputed } from '../../values/keptComputed';
import { countText } from '../../entry/numbers';
import { useEffectStore } from '../../../stores/effect';

/** The head of a group's row: its name, and what its layers together have alive and cost. */
const props = defineProps<{
  id: string;
  isFolded: boolean;
  countOf: (layerId: string) => LayerCount | undefined;
}>();
const emit = defineEmits<{ fold: [] }>();
const store = useEffectStore();
const group = computed(() => store.effect!.groups.byId[props.id]!);
/** Its own layers, and those that a linked effect brings. */
const layers = keptComputed(() => [
  ...layersWithin(store.effect!, props.id),
  ...(wholeOf(store.effect!).layersOf.get(props.id) ?? []),
]);
const sumOf = (of: (count: LayerCount) => number) =>
  layers.value.reduce(
    (total, id) => total + of(props.countOf(id) ?? ({ living: 0, milliseconds: 0 } as LayerCount)),
    0,
  );
const living = computed(() => countText(sumOf(({ living }) => living)));
const cost = computed(() => `${sumOf(({ milliseconds }) => milliseconds).toFixed(1)} ms`);
</script>

<template>
  <div class="head">
    <button
      type="button"
      class="plain fold"
      :aria-expanded="!isFolded"
      :aria-label="`${isFolded ? 'Unfold' : 'Fold'} ${group.name}`"
      @click.stop="emit('fold')"
    >
      {{ isFolded ? '▸' : '▾' }}
    </button>
    <span class="name">{{ group.name }}</span>
    <span v-if="group.linked" class="quiet">{{ group.linked.hidden ? 'linked, hidden' : 'linked' }}</span>
    <span v-else class="quiet">{{ layers.length }} {{ layers.length === 1 ? 'layer' : 'layers' }}</span>
    <span class="counts number painted-apart">
      <span class="count">{{ living }}</span>
      <span class="cost">{{ cost }}</span>
    </span>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 6px;
  height: 24px;
  padding: 0 8px 0 4px;
  overflow: hidden;
}
.fold {
  padding: 0 3px;
}
.name {
  flex: 1;
  font-weight: 600;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.quiet {
  font-size: 12.5px;
  white-space: nowrap;
}
.counts {
  display: flex;
  gap: 6px;
}
.count {
  color: var(--soft);
}
.cost {
  color: var(--dim);
  min-width: 46px;
  text-align: right;
  font-size: 12.5px;
}
</style>
