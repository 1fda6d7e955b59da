<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { freeName, listed, waitingFor, withItem, type Signal } from '@jinx/core/document';
import { dropSignal } from '@jinx/core/editing';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ChoiceChip from '../chips/ChoiceChip.vue';
import PlainChip from '../chips/PlainChip.vue';
import TextField from '../chips/TextField.vue';

/** Moments that the game announces, for which bursts may wait; on the stage each is tried at a time, or announced by hand. */
const store = useEffectStore();
const signals = computed(() =>
  listed(store.effect!.signals).map(({ id, item }) => ({
    id,
    item,
    users: waitingFor(store.effect!, id).map((layer) => store.effect!.layers.byId[layer]!.name),
  })),
);
const hasHold = computed(() => store.effect!.stretches.hold.kind !== 'none');
const TRIED = computed(() => [
  { value: '', text: 'is not tried' },
  { value: 'opening', text: 'comes in the opening' },
  ...(hasHold.value ? [{ value: 'hold', text: 'comes in each hold' }] : []),
  { value: 'closing', text: 'comes in the closing' },
]);
const change = (id: string, recipe: (signal: Signal) => void, gesture: string | null = null) =>
  store.change('change a signal', (draft) => recipe(draft.signals.byId[id]!), gesture);
const tryIn = (id: string, stretch: string) =>
  change(id, (signal) => {
    signal.tried = stretch
      ? { stretch: stretch as NonNullable<Signal['tried']>['stretch'], at: signal.tried?.at ?? 0 }
      : null;
  });
function rename(id: string, name: string): void {
  const plain = name.trim().slice(0, 80);
  if (plain) change(id, (signal) => (signal.name = plain));
}
const add = () =>
  store.change('add a signal', (draft) => {
    const name = freeName(draft.signals, 'Contact');
    draft.signals = withItem(draft.signals, store.newId(), { name, tried: null });
  });
const drop = (id: string) => store.change('take a signal away', (draft) => dropSignal(draft, id));
</script>

<template>
  <p v-if="signals.length === 0" class="quiet">
    A signal is a moment that the game announces, beside strike and let go: a wind-up that is over, a foot that lands.
    Bursts may wait for it.
  </p>
  <p v-for="{ id, item, users } in signals" :key="id">
    <TextField class="chip name" :value="item.name" aria-label="name of the signal" @commit="rename(id, $event)" />
    on the stage
    <ChoiceChip
      :value="item.tried?.stretch ?? ''"
      :choices="TRIED"
      :label="`when ${item.name} is tried`"
      @choose="tryIn(id, $event)"
    /><template v-if="item.tried">
      at
      <PlainChip
        :value="item.tried.at"
        :label="`${item.name} comes at`"
        unit="s"
        :least="0"
        :most="3600"
        @change="(at, drag) => change(id, (signal) => signal.tried && (signal.tried.at = at), drag)"
    /></template>
    <Button type="text" :aria-label="`Take ${item.name} away`" @click="drop(id)">×</Button>
    <span class="quiet">{{
      users.length
        ? `Bursts of ${users.join(', ')} wait for it.`
        : 'No burst waits for it: choose it where one is set.'
    }}</span>
  </p>
  <p><Button type="link" @click="add">Add a signal</Button></p>
</template>

<style scoped>
.name {
  width: 88px;
  cursor: text;
}
</style>
