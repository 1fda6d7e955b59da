<script setup lang="ts">
import {
  freeName,
  listed,
  MOST_OWN_LIGHTS,
  withItem,
  withoutItem,
  type OwnLight,
  type Surround,
} from '@jinx/core/document';
import { Button, Radio } from 'ant-design-vue';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import PlainChip from '../chips/PlainChip.vue';
import VectorChip from '../chips/VectorChip.vue';
import ColourField from '../colour/ColourField.vue';
import { injectCommands } from '../commands/registry';
import { keyName } from '../commands/placeKeys';
import { SURROUNDS } from '../stage/surrounds';
import { cssOf } from '../values/colour';

/** What the stage stands in, seen before it is chosen while it is pointed at, and the artist's own lights. */
const store = useEffectStore();
const commands = injectCommands();
const surround = computed(() => store.effect!.stage.surround);
const set = (to: Surround) => store.change('choose the surround', ({ stage }) => (stage.surround = to));
function choose(to: Surround): void {
  store.preview(null);
  set(to);
}
const keyOf = (value: Surround) => commands.keysOf(`surround.${value}`).map(keyName)[0];

const lights = computed(() => listed(store.effect!.stage.lights));
/** From above and a little before, as a lamp that is held over the shoulder. */
const FIRST: Omit<OwnLight, 'name'> = { at: [0.8, 2.2, 1.2], colour: '#fff1dc', strength: 4, reach: 6 };
const add = () =>
  store.change('put a light on the stage', ({ stage }) => {
    const light = { ...FIRST, name: freeName(stage.lights, 'Light') };
    if (stage.lights.order.length > 0) light.at = [-1.6, 1.8, 1];
    stage.lights = withItem(stage.lights, store.newId(), light);
  });
const change = (id: string, part: Partial<OwnLight>, gesture: string | null) =>
  store.change(
    'change a light of the stage',
    ({ stage }) => void Object.assign(stage.lights.byId[id]!, part),
    gesture,
  );
const remove = (id: string) =>
  store.change('take a light off the stage', ({ stage }) => (stage.lights = withoutItem(stage.lights, id)));
</script>

<template>
  <Radio.Group :value="surround" class="surrounds" aria-label="Surround" @change="choose($event.target.value)">
    <Radio
      v-for="{ value, text, help } in SURROUNDS"
      :key="value"
      :value="value"
      :title="keyOf(value) ? `${help} (${keyOf(value)})` : help"
      @pointerenter="store.preview(() => set(value))"
      @pointerleave="store.preview(null)"
      >{{ text }}</Radio
    >
  </Radio.Group>
  <section v-for="{ id, item } in lights" :key="id" :aria-label="item.name">
    <p>
      {{ item.name }}
      <ColourField
        :hex="item.colour"
        :label="`colour of ${item.name}`"
        @change="change(id, { colour: $event }, `light ${id}`)"
        @choose="change(id, { colour: cssOf({ palette: $event }, store.effect!) }, null)"
      />
      <PlainChip
        :value="item.strength"
        :label="`strength of ${item.name}`"
        unit="×"
        :least="0"
        :most="1000"
        @change="(strength, drag) => change(id, { strength }, drag)"
      />
      strong, reaching
      <PlainChip
        :value="item.reach"
        :label="`reach of ${item.name}`"
        unit="m"
        :least="0.1"
        :most="100"
        @change="(reach, drag) => change(id, { reach }, drag)"
      />
    </p>
    <p>
      at
      <VectorChip
        :value="item.at"
        :label="`place of ${item.name}`"
        unit="m"
        :least="-1000"
        :most="1000"
        @change="(at, drag) => change(id, { at }, drag)"
      />
      <Button type="text" :aria-label="`Take ${item.name} away`" @click="remove(id)">×</Button>
    </p>
  </section>
  <p>
    <Button
      v-if="lights.length < MOST_OWN_LIGHTS"
      type="link"
      title="A light to judge by. It stands on the stage and is no part of the effect"
      @click="add"
    >
      Put a light there
    </Button>
  </p>
</template>

<style scoped>
.surrounds {
  display: grid;
  grid-template-columns: repeat(3, auto);
  gap: 2px 10px;
  justify-items: start;
}
section {
  border-top: 1px solid var(--rule);
  margin-top: 4px;
  padding-top: 4px;
}
</style>
