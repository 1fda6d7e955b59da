<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { freeName, listed, usesOf, withItem, type Measure, type Id } from '@jinx/core/document';
import { dropMeasure } from '@jinx/core/editing';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import MenuButton from '../chips/MenuButton.vue';
import PlainChip from '../chips/PlainChip.vue';
import { inOrder } from '../chips/dragging';
import DraggedList from '../chips/DraggedList.vue';
import DragGrip from '../chips/DragGrip.vue';
import TextField from '../chips/TextField.vue';
import { MEASURE_UNITS } from './given';
import UsedBy from './UsedBy.vue';

/** Lengths, times and counts that several settings share. */
const store = useEffectStore();
const NEW: Record<Measure['quantity'], { text: string; name: string; value: number }> = {
  length: { text: 'a length', name: 'Height', value: 1 },
  time: { text: 'a time', name: 'Fade', value: 0.5 },
  count: { text: 'a count', name: 'Blades', value: 6 },
};
const kinds = Object.entries(NEW).map(([value, { text }]) => ({ value, text }));
const measures = computed(() =>
  listed(store.effect!.measures).map(({ id, item }) => ({
    id,
    item,
    uses: usesOf(store.effect!, 'measures', id),
  })),
);
const set = (id: string, value: number, gesture: string | null) =>
  store.change('set a measure', (draft) => (draft.measures.byId[id]!.value = value), gesture);
function rename(id: string, name: string): void {
  const plain = name.trim().slice(0, 80);
  if (plain) store.change('rename a measure', (draft) => (draft.measures.byId[id]!.name = plain));
}
function add(quantity: string): void {
  const { name, value } = NEW[quantity as Measure['quantity']];
  store.change('name a measure', (draft) => {
    draft.measures = withItem(draft.measures, store.newId(), {
      name: freeName(draft.measures, name),
      quantity: quantity as Measure['quantity'],
      value,
    });
  });
}
const drop = (id: string) => store.change('take a measure away', (draft) => dropMeasure(draft, id));
const order = (to: Id[]) => store.change('order measures', (draft) => (draft.measures = inOrder(draft.measures, to)));
</script>

<template>
  <p v-if="measures.length === 0" class="quiet">
    A length, time or count named here can be used by several numbers: open one and choose it there.
  </p>
  <DraggedList :all="store.effect!.measures" @order="order">
    <p v-for="{ id, item, uses } in measures" :key="id">
      <DragGrip :id="id" :name="item.name" :all="store.effect!.measures" @order="order" />
      <TextField class="chip name" :value="item.name" aria-label="name of the measure" @commit="rename(id, $event)" />
      is
      <PlainChip
        :value="item.value"
        :label="item.name"
        :unit="MEASURE_UNITS[item.quantity]"
        :least="0"
        :most="1000000"
        :whole="item.quantity === 'count'"
        @change="(value, drag) => set(id, value, drag)"
      />
      <Button type="text" :aria-label="`Take ${item.name} away`" @click="drop(id)">×</Button>
      <UsedBy :uses="uses" />
    </p>
  </DraggedList>
  <p><MenuButton label="Name…" :choices="kinds" @choose="add" /></p>
</template>

<style scoped>
.name {
  width: 120px;
  cursor: text;
}
</style>
