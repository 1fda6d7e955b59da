<script setup lang="ts">
import { listed, withItem, withoutItem } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ActChip from '../chips/ActChip.vue';
import MenuButton from '../chips/MenuButton.vue';

/** Which layers a force acts on: the chosen one only, or several as a force of the effect's own. */
const props = defineProps<{ id: string; isShared: boolean }>();
const store = useEffectStore();

const shared = computed(() => store.effect!.forces.byId[props.id]);
const layers = computed(() => listed(store.effect!.layers).map(({ id, item }) => ({ id, name: item.name })));
const acting = computed(() =>
  shared.value?.layers.length ? layers.value.filter(({ id }) => shared.value!.layers.includes(id)) : [],
);
const others = computed(() => layers.value.filter(({ id }) => !acting.value.some((layer) => layer.id === id)));

const EVERY = 'every layer';
function also(layerId: string): void {
  store.change('share a force', (draft) => {
    const own = draft.layers.byId[store.chosenId]!;
    const force = own.forces.byId[props.id] ?? draft.forces.byId[props.id]!.force;
    const before = draft.forces.byId[props.id]?.layers ?? [store.chosenId];
    own.forces = withoutItem(own.forces, props.id);
    draft.forces = withItem(draft.forces, props.id, {
      force,
      layers: layerId === EVERY ? [] : [...before, layerId],
    });
  });
}
/** Leaves a layer out; a force left to the chosen layer alone is its own again. */
function leaveOut(layerId: string): void {
  store.change('share a force less', (draft) => {
    const { force } = draft.forces.byId[props.id]!;
    const rest = acting.value.map(({ id }) => id).filter((id) => id !== layerId);
    if (rest.length > 1) {
      draft.forces.byId[props.id]!.layers = rest;
      return;
    }
    const keeper = draft.layers.byId[rest[0] ?? store.chosenId]!;
    draft.forces = withoutItem(draft.forces, props.id);
    keeper.forces = withItem(keeper.forces, props.id, force);
  });
}
const onlyHere = () =>
  store.change('keep a force to this layer', (draft) => {
    const { force } = draft.forces.byId[props.id]!;
    const keeper = draft.layers.byId[store.chosenId]!;
    draft.forces = withoutItem(draft.forces, props.id);
    keeper.forces = withItem(keeper.forces, props.id, force);
  });
</script>

<template>
  <span v-if="layers.length > 1 || isShared" class="shared">
    <template v-if="isShared && acting.length === 0">
      Acts on
      <ActChip title="Keep it to this layer" @click="onlyHere">every layer ×</ActChip>.
    </template>
    <template v-else-if="isShared">
      Acts on
      <ActChip
        v-for="{ id: layerId, name } in acting"
        :key="layerId"
        :title="`Leave ${name} out`"
        @click="leaveOut(layerId)"
      >
        {{ name }} ×
      </ActChip>
    </template>
    <MenuButton
      v-if="!(isShared && acting.length === 0)"
      :label="isShared ? 'and…' : 'acts on others too…'"
      :choices="[
        { value: EVERY, text: EVERY },
        ...others
          .filter(({ id: other }) => other !== store.chosenId)
          .map(({ id: value, name: text }) => ({ value, text })),
      ]"
      @choose="also"
    />
  </span>
</template>

<style scoped>
.shared {
  display: block;
  font-size: 12.5px;
}
</style>
