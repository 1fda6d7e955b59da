<script setup lang="ts">
import { listed, usesOf, withItem, type Dial, type Effect, type Id } from '@jinx/core/document';
import { dropDial, setDialRange } from '@jinx/core/editing';
import { Button, message } from 'ant-design-vue';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ChoiceChip from '../chips/ChoiceChip.vue';
import MenuButton from '../chips/MenuButton.vue';
import PlainChip from '../chips/PlainChip.vue';
import { inOrder } from '../chips/dragging';
import DraggedList from '../chips/DraggedList.vue';
import DragGrip from '../chips/DragGrip.vue';
import TextField from '../chips/TextField.vue';
import { newDial } from './given';
import GivenDial from './GivenDial.vue';
import UsedBy from './UsedBy.vue';

/** What is brought out of the effect, for whoever places it: numbers with ranges, switches, places, directions, pictures, meshes. */
const store = useEffectStore();
type NumberDial = Extract<Dial, { kind: 'number' }>;
const KINDS = [
  { value: 'number', text: 'a number' },
  { value: 'switch', text: 'a switch' },
  { value: 'place', text: 'a place' },
  { value: 'direction', text: 'a direction' },
  { value: 'picture', text: 'a picture' },
  { value: 'mesh', text: 'a mesh' },
];
const SWITCHED = [
  { value: 'on', text: 'on' },
  { value: 'off', text: 'off' },
];
const dials = computed(() =>
  listed(store.effect!.dials).map(({ id, item }) => ({ id, item, uses: usesOf(store.effect!, 'dials', id) })),
);
const colours = computed(() => listed(store.effect!.palette).filter(({ item }) => item.isDial));
const set = (id: string, part: Partial<Dial>, gesture: string | null = null) =>
  store.change('set a dial', (draft) => void Object.assign(draft.dials.byId[id]!, part), gesture);
/** The effect as it was before a range was dragged, and as the last change left it: anything else that is done ends that. */
let dragged: { readonly before: Effect; readonly after: Effect } | null = null;
/** Another range holds where the dial stands, and changes nothing of what it gives there. */
function setRange(id: string, part: { least?: number; most?: number }, gesture: string | null): void {
  const effect = store.effect!;
  const before = gesture !== null && dragged?.after === effect ? dragged.before : effect;
  const { least, most } = effect.dials.byId[id] as NumberDial;
  store.change('set a dial’s range', (draft) => setDialRange(draft, id, { least, most, ...part }, before), gesture);
  dragged = { before, after: store.effect! };
}
/** A range has some width. */
const gap = ({ least, most }: NumberDial) => 1e-4 * Math.max(1, Math.abs(least), Math.abs(most));
function rename(id: string, name: string): void {
  const plain = name.trim().slice(0, 80);
  if (plain) store.change('rename a dial', (draft) => (draft.dials.byId[id]!.name = plain));
}
function add(kind: string): void {
  const dial = newDial(store.effect!, kind as Dial['kind']);
  if (typeof dial === 'string') return void message.info(dial, 6);
  store.change('add a dial', (draft) => (draft.dials = withItem(draft.dials, store.newId(), dial)));
}
const drop = (id: string) => store.change('take a dial away', (draft) => dropDial(draft, id));
const order = (to: Id[]) => store.change('order dials', (draft) => (draft.dials = inOrder(draft.dials, to)));
</script>

<template>
  <p v-if="dials.length === 0 && colours.length === 0" class="quiet">
    A dial is a value that others may turn where the effect is placed. Open any number and bring it out, or add one
    and shape several numbers by it.
  </p>
  <DraggedList :all="store.effect!.dials" @order="order">
    <p v-for="{ id, item, uses } in dials" :key="id">
      <DragGrip :id="id" :name="item.name" :all="store.effect!.dials" @order="order" />
      <TextField class="chip name" :value="item.name" aria-label="name of the dial" @commit="rename(id, $event)" />
      <template v-if="item.kind === 'number'">
        is
        <PlainChip
          :value="item.value"
          :label="item.name"
          :least="item.least"
          :most="item.most"
          @change="(value, drag) => set(id, { value }, drag)"
        />, between
        <PlainChip
          :value="item.least"
          :label="`${item.name} at least`"
          :least="-1000000"
          :most="item.most - gap(item)"
          @change="(least, drag) => setRange(id, { least }, drag)"
        />
        and
        <PlainChip
          :value="item.most"
          :label="`${item.name} at most`"
          :least="item.least + gap(item)"
          :most="1000000"
          @change="(most, drag) => setRange(id, { most }, drag)"
        />
      </template>
      <template v-else-if="item.kind === 'switch'">
        is
        <ChoiceChip
          :value="item.value ? 'on' : 'off'"
          :choices="SWITCHED"
          :label="item.name"
          @choose="set(id, { value: $event === 'on' })"
        />
      </template>
      <GivenDial v-else :dial="item" @set="(part, drag) => set(id, part, drag)" />
      <Button type="text" :aria-label="`Take ${item.name} away`" @click="drop(id)">×</Button>
      <UsedBy :uses="uses" />
    </p>
  </DraggedList>
  <p v-if="colours.length > 0">
    And {{ colours.length === 1 ? 'a colour' : 'colours' }} of the palette:
    {{ colours.map(({ item }) => item.name).join(', ') }}.
  </p>
  <p><MenuButton label="Add a dial…" :choices="KINDS" @choose="add" /></p>
</template>

<style scoped>
.name {
  width: 88px;
  cursor: text;
}
</style>
