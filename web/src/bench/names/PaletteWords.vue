<script setup lang="ts">
import { Button } from 'ant-design-vue';
import {
  freeName,
  derivedColour,
  listed,
  namedColour,
  usesOf,
  withItem,
  type PaletteEntry,
  type Id,
} from '@jinx/core/document';
import { dropColour } from '@jinx/core/editing';
import { hexOfLinear, paletteColour } from '@jinx/core/maths';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { cssOf } from '../values/colour';
import ColourField from '../colour/ColourField.vue';
import ChoiceChip from '../chips/ChoiceChip.vue';
import PlainChip from '../chips/PlainChip.vue';
import { inOrder } from '../chips/dragging';
import DraggedList from '../chips/DraggedList.vue';
import DragGrip from '../chips/DragGrip.vue';
import TextField from '../chips/TextField.vue';
import UsedBy from './UsedBy.vue';

/** The effect's named colours: each by itself, or derived from another. */
const store = useEffectStore();
const entries = computed(() =>
  listed(store.effect!.palette).map(({ id, item }) => ({
    id,
    item,
    hex: hexOfLinear(paletteColour(store.effect!.palette, id)),
    uses: usesOf(store.effect!, 'palette', id),
  })),
);
/** Which colours one may be derived from: none that comes of it. */
function origins(id: string) {
  const comesOf = (entry: string): boolean => {
    const colour = store.effect!.palette.byId[entry]?.colour;
    return entry === id || (colour?.kind === 'derived' && comesOf(colour.from));
  };
  return [
    { value: '', text: 'by itself' },
    ...listed(store.effect!.palette)
      .filter((other) => !comesOf(other.id))
      .map((other) => ({ value: other.id, text: `made of ${other.item.name}` })),
  ];
}
const change = (id: string, what: string, recipe: (entry: PaletteEntry) => void, gesture: string | null = null) =>
  store.change(what, (draft) => recipe(draft.palette.byId[id]!), gesture && `palette ${id} ${gesture}`);
const setHex = (id: string, hex: string) =>
  change(id, 'set a colour of the palette', (entry) => (entry.colour = { kind: 'fixed', hex }), 'colour');
function derive(id: string, from: string, hex: string): void {
  change(id, 'derive a colour', (entry) => {
    entry.colour = from === '' ? { kind: 'fixed', hex } : derivedColour('', from, {}).colour;
  });
}
const set = (id: string, part: { turned?: number; lighter?: number }, gesture: string | null) =>
  change(id, 'derive a colour', ({ colour }) => void Object.assign(colour, part), gesture);
function rename(id: string, name: string): void {
  const plain = name.trim().slice(0, 80);
  if (plain) change(id, 'rename a colour', (entry) => (entry.name = plain));
}
const bring = (id: string, isDial: boolean) =>
  change(id, isDial ? 'bring a colour out' : 'keep a colour in', (entry) => (entry.isDial = isDial));
const add = () =>
  store.change('name a colour', (draft) => {
    draft.palette = withItem(draft.palette, store.newId(), namedColour(freeName(draft.palette, 'Lamp'), '#e8f070'));
  });
const drop = (id: string) => store.change('take a colour out of the palette', (draft) => dropColour(draft, id));
const order = (to: Id[]) =>
  store.change('order the palette', (draft) => (draft.palette = inOrder(draft.palette, to)));
</script>

<template>
  <p v-if="entries.length === 0" class="quiet">
    A colour named here can be chosen wherever a colour stands, and changed for all of them at once.
  </p>
  <DraggedList :all="store.effect!.palette" @order="order">
    <p v-for="{ id, item, hex, uses } in entries" :key="id">
      <DragGrip :id="id" :name="item.name" :all="store.effect!.palette" @order="order" />
      <ColourField
        v-if="item.colour.kind === 'fixed'"
        :hex="hex"
        :label="`colour of ${item.name}`"
        @change="setHex(id, $event)"
        @choose="setHex(id, cssOf({ palette: $event }, store.effect!))"
      />
      <i v-else class="swatch" :style="{ background: hex }" :title="hex"></i>
      <TextField class="chip name" :value="item.name" aria-label="name of the colour" @commit="rename(id, $event)" />
      <ChoiceChip
        v-if="origins(id).length > 1"
        :value="item.colour.kind === 'derived' ? item.colour.from : ''"
        :choices="origins(id)"
        :label="`what ${item.name} is made of`"
        @choose="derive(id, $event, hex)"
      />
      <template v-if="item.colour.kind === 'derived'">
        , its hue turned by
        <PlainChip
          :value="item.colour.turned"
          :label="`hue of ${item.name} turned by`"
          unit="°"
          :least="-180"
          :most="180"
          whole
          @change="(turned, drag) => set(id, { turned }, drag)"
        />, lighter by
        <PlainChip
          :value="item.colour.lighter"
          :label="`${item.name} lighter by`"
          :least="-1"
          :most="1"
          @change="(lighter, drag) => set(id, { lighter }, drag)"
        />
      </template>
      <Button
        type="link"
        :aria-pressed="item.isDial"
        title="Whether whoever places the effect may set it"
        @click="bring(id, !item.isDial)"
      >
        {{ item.isDial ? 'a dial: keep it in' : 'bring it out' }}
      </Button>
      <Button type="text" :aria-label="`Take ${item.name} out of the palette`" @click="drop(id)"> × </Button>
      <UsedBy :uses="uses" />
    </p>
  </DraggedList>
  <p><Button type="link" @click="add">Name a colour</Button></p>
</template>

<style scoped>
.swatch {
  display: inline-block;
  width: 30px;
  height: 22px;
  padding: 0;
  margin-right: 4px;
  border: 1px solid #55555a;
  border-radius: 3px;
  background: none;
  vertical-align: middle;
  box-sizing: border-box;
}
.name {
  width: 96px;
  cursor: text;
}
</style>
