<script setup lang="ts">
import { listed, withItem, withoutItem, type Burst } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ChoiceChip from '../ChoiceChip.vue';
import NumberChip from '../NumberChip.vue';
import PlainChip from '../PlainChip.vue';

const store = useEffectStore();
const bursts = computed(() => listed(store.chosen!.bursts));
const isMesh = computed(() => store.chosen!.source.kind === 'mesh');
const hasHold = computed(() => store.effect!.stretches.hold.kind !== 'none');
const stretches = computed(() => [
  { value: 'opening', text: 'the opening' },
  ...(hasHold.value ? [{ value: 'hold', text: 'each hold' }] : []),
  { value: 'closing', text: 'the closing' },
]);

const add = () =>
  store.changeLayer(
    'add a burst',
    (layer) =>
      (layer.bursts = withItem(layer.bursts, store.newId(), {
        stretch: hasHold.value ? 'hold' : 'opening',
        at: 0,
        count: 30,
      })),
  );
const remove = (id: string) =>
  store.changeLayer('remove a burst', (layer) => (layer.bursts = withoutItem(layer.bursts, id)));
const set = (id: string, part: Partial<Burst>, gesture: string | null = null) =>
  store.changeLayer('change a burst', (layer) => Object.assign(layer.bursts.byId[id]!, part), gesture);
</script>

<template>
  <p>
    They are born at <NumberChip setting="births.rate" />, and <NumberChip setting="births.perMetre" /> the source
    travels.
  </p>
  <p v-for="{ id, item } in bursts" :key="id">
    A burst of
    <PlainChip
      :value="item.count"
      label="burst count"
      :least="0"
      :most="1000000"
      whole
      @change="(count, gesture) => set(id, { count }, gesture)"
    />
    comes
    <PlainChip
      :value="item.at"
      label="burst time"
      unit="s"
      :least="0"
      :most="3600"
      @change="(at, gesture) => set(id, { at }, gesture)"
    />
    into
    <ChoiceChip
      :value="item.stretch"
      :choices="stretches"
      label="burst stretch"
      @choose="set(id, { stretch: $event as Burst['stretch'] })"
    />.
    <button type="button" class="plain" title="Remove this burst" aria-label="Remove this burst" @click="remove(id)">
      ×
    </button>
  </p>
  <p><button type="button" class="plain act" @click="add">Add a burst</button></p>
  <p>
    Besides, <NumberChip setting="births.standing" /><template v-if="isMesh">
      and <NumberChip setting="births.perArea" /> of its surface</template
    >
    stand for as long as the effect does.
  </p>
  <p>Each lives <NumberChip setting="births.life" />. At most <NumberChip setting="births.cap" /> live at once.</p>
</template>
