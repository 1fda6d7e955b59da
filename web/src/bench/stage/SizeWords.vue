<script setup lang="ts">
import { listed } from '@jinx/core/document';
import { restExtent } from '@jinx/core/geometry';
import type { Extent } from '@jinx/stage';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { useExtent } from './useExtent';

/** How wide and high the chosen layers are in the picture, beside the first figure; under their names. */
const store = useEffectStore();
const engine = inject(ENGINE)!;
const extent = useExtent(engine);
const metres = (value: number) => (value < 0.1 ? value.toFixed(3) : value.toFixed(2));
/** Its wider side seen from above, and its height. */
const sizeOf = ({ low, high }: Extent): string =>
  `${metres(Math.max(high[0] - low[0], high[2] - low[2]))} × ${metres(high[1] - low[1])} m`;
const figure = computed(() => {
  const [first] = listed(store.effect!.stage.things);
  const rig = first && engine.rigs.value.get(first.id);
  if (!rig) return '';
  const { low, high } = restExtent(rig.mesh.positions);
  return `${first.item.name} ${metres((high[1] - low[1]) * first.item.scale)} m high`;
});
</script>

<template>
  <div
    v-if="extent && store.page === 'layers'"
    class="size number painted-apart"
    title="How wide and high the living of the chosen layers are in the picture, with their sizes"
  >
    <b data-extent>{{ sizeOf(extent) }}</b><span v-if="figure" class="quiet"> beside {{ figure }}</span>
  </div>
</template>

<style scoped>
.size {
  color: var(--soft);
  line-height: 18px;
  margin: -2px 0 4px;
  font-size: 12.5px;
}
b {
  font-weight: 600;
}
</style>
