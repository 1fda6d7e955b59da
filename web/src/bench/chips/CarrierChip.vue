<script setup lang="ts">
import { listed, structuredCopy, type Carrier } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import ChoiceChip from './ChoiceChip.vue';
import PlainChip from './PlainChip.vue';
import VectorChip from './VectorChip.vue';

/** What the effect itself rides on. */
const engine = inject(ENGINE)!;
const store = useEffectStore();
const carrier = computed(() => store.effect!.stage.carrier);
const WAYS: readonly { value: string; text: string; made: Carrier }[] = [
  { value: 'still', text: 'stands still', made: { kind: 'still' } },
  { value: 'circle', text: 'flies round', made: { kind: 'circle', radius: 1, speed: 3 } },
  {
    value: 'flight',
    text: 'is thrown',
    made: { kind: 'flight', from: [-2.5, 0.4, 0], to: [2.5, 0, 0], speed: 4, arc: 0.8 },
  },
];
const keyOf = (of: Carrier) => (of.kind === 'thing' ? `thing ${of.thing} ${of.bone}` : of.kind);
const choices = computed(() => [
  ...WAYS,
  ...listed(store.effect!.stage.things).flatMap(({ id: thing, item }) =>
    ['', ...(engine.rigs.value.get(thing)?.bones ?? []).map(({ name }) => name)].map((bone) => {
      const made: Carrier = { kind: 'thing', thing, bone };
      return { value: keyOf(made), text: `rides on ${item.name}${bone === '' ? '' : `, ${bone}`}`, made };
    }),
  ),
]);
const value = computed(() => keyOf(carrier.value));
const set = (made: Carrier, gesture: string | null = null) =>
  store.change('choose what the effect rides on', (draft) => (draft.stage.carrier = made), gesture);
const choose = (chosen: string) => set(structuredCopy(choices.value.find((one) => one.value === chosen)!.made));
</script>

<template>
  <span class="carrier">
    The effect
    <ChoiceChip :value="value" :choices="choices" label="what the effect rides on" previews @choose="choose" />
    <template v-if="carrier.kind === 'circle'">
      <PlainChip
        :value="carrier.radius"
        label="radius it flies round"
        unit="m"
        :least="0.05"
        :most="1000"
        @change="(radius, gesture) => set({ ...carrier, radius } as Carrier, gesture)"
      />
      at
      <PlainChip
        :value="carrier.speed"
        label="speed it flies at"
        unit="m/s"
        :least="-200"
        :most="200"
        @change="(speed, gesture) => set({ ...carrier, speed } as Carrier, gesture)"
      />
    </template>
    <template v-if="carrier.kind === 'flight'">
      from
      <VectorChip
        :value="carrier.from"
        label="where it is thrown from"
        unit="m"
        :least="-1000"
        :most="1000"
        @change="(from, gesture) => set({ ...carrier, from } as Carrier, gesture)"
      />
      to
      <VectorChip
        :value="carrier.to"
        label="where it is thrown to"
        unit="m"
        :least="-1000"
        :most="1000"
        @change="(to, gesture) => set({ ...carrier, to } as Carrier, gesture)"
      />
      at
      <PlainChip
        :value="carrier.speed"
        label="speed it is thrown at"
        unit="m/s"
        :least="0.01"
        :most="1000"
        @change="(speed, gesture) => set({ ...carrier, speed } as Carrier, gesture)"
      />
      in an arc of
      <PlainChip
        :value="carrier.arc"
        label="arc it is thrown in"
        unit="m"
        :least="-100"
        :most="100"
        @change="(arc, gesture) => set({ ...carrier, arc } as Carrier, gesture)"
      />
    </template>
  </span>
</template>

<style scoped>
.carrier {
  font-size: 13px;
}
</style>
