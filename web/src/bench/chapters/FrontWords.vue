<script setup lang="ts">
import { previewOf } from '@jinx/core/checks';
import {
  inWorld,
  listed,
  newFront,
  refsTo,
  withItem,
  withoutItem,
  type Front,
  type HolderAddress,
  type Place,
} from '@jinx/core/document';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import ChoiceChip from '../chips/ChoiceChip.vue';
import MenuButton from '../chips/MenuButton.vue';
import PlaceWords from '../chips/PlaceWords.vue';
import SettingChip from '../chips/SettingChip.vue';

/** The release front of the chosen layer as sentences: its border, what it leaves held, and what it will free. */
const store = useEffectStore();
const engine = inject(ENGINE)!;
const layer = computed(() => store.chosen!);
const id = computed(() => layer.value.front ?? '');
const front = computed(() => store.effect!.fronts.byId[id.value] ?? null);
const of = computed((): HolderAddress => ({ kind: 'front', id: id.value }));

const KINDS = [
  { value: 'sphere', text: 'grows as a sphere from' },
  { value: 'box', text: 'grows as a box from' },
  { value: 'plane', text: 'climbs as a plane from' },
];
const known = computed(() => listed(store.effect!.fronts).map(({ id: value, item }) => ({ value, text: item.name })));
const NEW: readonly { value: string; text: string; kind: Front['kind'] }[] = [
  { value: 'new sphere', text: 'as a sphere grows', kind: 'sphere' },
  { value: 'new box', text: 'as a box grows', kind: 'box' },
  { value: 'new plane', text: 'as a plane climbs', kind: 'plane' },
];
const beginnings = computed(() => [
  ...known.value.map(({ value, text }) => ({ value, text: `with ${text}` })),
  ...NEW,
]);
const names = computed(() => [...known.value, { value: '', text: 'no front' }]);

function choose(chosen: string): void {
  const kind = NEW.find(({ value }) => value === chosen)?.kind;
  store.change('free particles by a front', (draft) => {
    const own = draft.layers.byId[store.chosenId]!;
    const before = own.front;
    own.front = chosen || null;
    if (kind) {
      const { source } = own;
      const place: Place = 'thing' in source ? { ...inWorld(), kind: 'thing', thing: source.thing } : inWorld();
      own.front = store.newId();
      const count = draft.fronts.order.length;
      draft.fronts = withItem(
        draft.fronts,
        own.front,
        newFront(count === 0 ? 'Front' : `Front ${count + 1}`, kind, place),
      );
    }
    // A front that frees and cuts nothing any more is not kept.
    if (before && refsTo(draft, 'fronts', before).length === 0) draft.fronts = withoutItem(draft.fronts, before);
  });
}
const change = (label: string, recipe: (front: Front) => void, gesture: string | null = null) =>
  store.change(label, (draft) => draft.fronts.byId[id.value] && recipe(draft.fronts.byId[id.value]!), gesture);
const setPlace = (place: Place, gesture: string | null) =>
  change('place a front', (own) => (own.place = place), gesture);

const seconds = (time: number) => `${Number(time.toFixed(2))} s`;
const preview = computed(() => {
  const told = previewOf(store.effect!, store.chosenId, engine.rigs.value);
  if (!told) return null;
  const never = 1 - told.freed;
  const left = never > 0 ? `; ${Math.max(1, Math.round(never * 100))}% never is` : '';
  if (!(told.freed > 0)) return 'Nothing will be freed: the border reaches none of them.';
  const share = never > 0 ? `${Math.min(99, Math.round(told.freed * 100))}% will be freed` : 'All will be freed';
  return `${share}, from ${seconds(told.first)} to ${seconds(told.last)}${left}.`;
});
</script>

<template>
  <p v-if="!front">
    <span class="quiet"
      >Free from their birth<template v-if="layer.front">: the front that held them is gone</template>.
    </span>
    <MenuButton label="hold and free them…" :choices="beginnings" @choose="choose" />
  </p>
  <template v-else>
    <p>
      Held where they are born until
      <ChoiceChip :value="id" :choices="names" label="front" @choose="choose" />
      reaches them, which frees <SettingChip setting="frees" :of="of" label="front, frees" /><template
        v-if="front.settings.frees.base.value === 'band'"
      >
        of <SettingChip setting="band" :of="of" label="front, band" /></template
      >. It
      <ChoiceChip
        :value="front.kind"
        :choices="KINDS"
        label="kind of front"
        previews
        @choose="change('change the kind of a front', (own) => (own.kind = $event as Front['kind']))"
      />
      <PlaceWords :place="front.place" label="front, place" turns @change="setPlace" />
      <template v-if="front.kind === 'box'"
        >, <SettingChip setting="size" :of="of" label="front, size" /> large</template
      >
      up to a border of <SettingChip setting="border" :of="of" label="front, border" />, ragged by
      <SettingChip setting="noise" :of="of" label="front, raggedness" /> in rags of
      <SettingChip setting="noiseSize" :of="of" label="front, size of the rags" />.
    </p>
    <p>
      While held they have <SettingChip setting="release.heldSize" /> of their first size and are
      <SettingChip setting="release.heldOpacity" /> opaque.
    </p>
    <p v-if="preview" class="quiet" data-preview>{{ preview }}</p>
  </template>
</template>
