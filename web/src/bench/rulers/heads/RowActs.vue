<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { computed } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import { keptComputed } from '../../values/keptComputed';
import MenuButton from '../../chips/MenuButton.vue';
import type { LayerActs } from '../useLayerActs';

/** What can be done with the open row's layer, and with those chosen beside it. */
const props = defineProps<{ id: string; acts: LayerActs }>();
const emit = defineEmits<{ clip: [] }>();
const store = useEffectStore();
const layer = computed(() => store.effect!.layers.byId[props.id]!);
const isMany = computed(() => store.chosenIds.length > 1);
/** Groups that it may be put into. */
const homes = computed(() => props.acts.homes().filter(({ group }) => group !== layer.value.parent));
const more = keptComputed(() => [
  { value: 'group', text: isMany.value ? 'group these (Ctrl G)' : 'group it (Ctrl G)' },
  ...homes.value,
  ...(layer.value.parent === null ? [] : [{ value: 'out', text: 'take out of its group' }]),
  { value: 'front', text: 'toward the front (Alt ↑)' },
  { value: 'back', text: 'toward the back (Alt ↓)' },
  { value: 'mirror', text: 'mirror left and right (Shift M)' },
  { value: 'mirrored', text: 'duplicate, mirrored' },
  { value: 'clip', text: 'copy to put into another effect (Ctrl C)' },
]);
function act(value: string): void {
  const { acts, id } = props;
  const home = homes.value.find((one) => one.value === value);
  if (home) return acts.putLayers(id, home.group);
  const all: Record<string, () => void> = {
    group: () => acts.group(id),
    out: () => acts.putLayers(id, null),
    front: () => acts.moveBy(id, -1),
    back: () => acts.moveBy(id, 1),
    mirror: () => acts.mirror(id),
    mirrored: () => acts.copy(id, true),
    clip: () => emit('clip'),
  };
  all[value]!();
}
</script>

<template>
  <div class="row-acts" @click.stop>
    <Button type="text" title="Ctrl D" @click="acts.copy(id)">Duplicate</Button>
    <Button type="text" title="Delete" @click="acts.remove(id)">Remove</Button>
    <MenuButton label="More…" :choices="more" @choose="act" />
  </div>
</template>

<style scoped>
.row-acts {
  flex: none;
  padding: 2px 2px 3px 8px;
  display: flex;
  font-size: 12.5px;
  white-space: nowrap;
}
.row-acts :deep(.ant-btn) {
  padding: 2px 3px;
}
</style>
