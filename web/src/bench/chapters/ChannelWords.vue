<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { carryChannel, channelUse, dropChannel, LAYER_SETTINGS, listed, MOST_CHANNELS } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import MenuButton from '../chips/MenuButton.vue';
import NumberChip from '../chips/NumberChip.vue';
import { useChosenPart } from '../useChosenPart';
import TextField from '../chips/TextField.vue';

/** What the chosen layer's particles carry beside what is seen: numbers under names, with who else carries and who reads them. */
const store = useEffectStore();
const channels = useChosenPart('channels');
const carried = computed(() =>
  listed(store.chosen!.channels).map(({ id }) => ({ id, name: store.effect!.channels.byId[id]!.name })),
);
const layerName = (id: string | null) => (id === null ? '' : (store.effect!.layers.byId[id]?.name ?? ''));
const tableName = (setting: string) => (LAYER_SETTINGS as Record<string, { name: string }>)[setting]?.name ?? setting;

function useText(id: string): string {
  const { carriedBy, readBy } = channelUse(store.effect!, id);
  const readers = readBy.map(({ layer, of, setting }) => {
    const own = layer === store.chosenId || layer === null ? '' : `${layerName(layer)}’s `;
    return `${own}${of ? `${of} ` : ''}${tableName(setting)}`;
  });
  const others = carriedBy.filter((layer) => layer !== store.chosenId).map(layerName);
  return [
    readers.length > 0
      ? `It shapes ${readers.join(', ')}.`
      : 'It shapes nothing yet: open a number and shape it by this.',
    others.length > 0 ? `Carried by ${others.join(', ')} too.` : '',
  ].join(' ');
}
const offered = computed(() => [
  ...listed(store.effect!.channels)
    .filter(({ id }) => !store.chosen!.channels.byId[id])
    .map(({ id, item }) => ({ value: id, text: item.name })),
  ...(store.effect!.channels.order.length < MOST_CHANNELS ? [{ value: '', text: 'something new' }] : []),
]);
function carry(id: string): void {
  const { channels } = store.effect!;
  const taken = new Set(listed(channels).map(({ item }) => item.name));
  const name =
    ['heat', 'charge', 'age of the blow'].find((each) => !taken.has(each)) ?? `channel ${channels.order.length + 1}`;
  store.change('carry a channel', (draft) => carryChannel(draft, store.chosenId, id || store.newId(), name));
}
const drop = (id: string) => store.change('drop a channel', (draft) => dropChannel(draft, store.chosenId, id));
function rename(id: string, name: string): void {
  const plain = name.trim().slice(0, 80);
  if (plain) store.change('rename a channel', (draft) => (draft.channels.byId[id]!.name = plain));
}
</script>

<template>
  <p v-for="{ id, name } in carried" :key="id">
    It carries
    <TextField class="chip name" :value="name" aria-label="name of the channel" @commit="rename(id, $event)" />
    of <NumberChip :setting="id" :of="channels" :label="name" />
    <Button type="text" :aria-label="`Carry ${name} no more`" @click="drop(id)">×</Button>
    <span class="where">{{ useText(id) }}</span>
  </p>
  <p v-if="offered.length">
    <span v-if="carried.length === 0" class="quiet">It carries no channel. </span>
    <MenuButton :label="carried.length ? 'carry also…' : 'carry a channel…'" :choices="offered" @choose="carry" />
  </p>
</template>

<style scoped>
.name {
  width: 96px;
  cursor: text;
}
.where {
  display: block;
  font-size: 12.5px;
  color: var(--dim);
}
</style>
