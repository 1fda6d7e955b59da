<script setup lang="ts">
import { emptyCollection, listed, placeKeyAt, placeSetAt, type HungValue, type Place } from '@jinx/core/document';
import { hungInto, newHung } from '@jinx/core/simulation';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import ChoiceChip from './ChoiceChip.vue';
import { tidy } from '../rulers/keyPlaces';
import VectorChip from './VectorChip.vue';

/** Where something stands, in words: in the effect, in the world, at a thing's feet or on a bone; how far and how turned. */
const props = defineProps<{ place: Place; label: string; turns?: boolean }>();
const emit = defineEmits<{ change: [place: Place, gesture: string | null] }>();
const engine = inject(ENGINE)!;
const store = useEffectStore();

/** What a place hangs on. */
type Anchor =
  | { readonly kind: 'effect' | 'world' }
  | { readonly kind: 'thing'; readonly thing: string }
  | { readonly kind: 'bone'; readonly thing: string; readonly bone: string }
  | { readonly kind: 'dial'; readonly dial: string };
function keyOf(anchor: Anchor): string {
  const { kind } = anchor;
  if (kind === 'bone') return `${kind} ${anchor.thing} ${anchor.bone}`;
  return kind === 'thing' ? `${kind} ${anchor.thing}` : kind === 'dial' ? `${kind} ${anchor.dial}` : kind;
}
const choice = (anchor: Anchor, text: string) => ({ value: keyOf(anchor), text, anchor });

/** Dials that say where something stands, or which way it is turned. */
const dials = computed(() =>
  listed(store.effect!.dials).flatMap(({ id, item }) =>
    item.kind === 'place' || item.kind === 'direction'
      ? [
          choice(
            { kind: 'dial', dial: id },
            item.kind === 'place' ? item.name : `the effect’s middle, by ${item.name}`,
          ),
        ]
      : [],
  ),
);
const choices = computed(() => {
  const { things } = store.effect!.stage;
  const known = [
    choice({ kind: 'effect' }, "the effect's middle"),
    choice({ kind: 'world' }, 'the middle of the world'),
    ...dials.value,
    ...listed(things).flatMap(({ id, item }) => [
      choice({ kind: 'thing', thing: id }, `${item.name}'s feet`),
      ...(engine.rigs.value.get(id)?.bones ?? []).map(({ name }) =>
        choice({ kind: 'bone', thing: id, bone: name }, things.order.length > 1 ? `${item.name}, ${name}` : name),
      ),
    ]),
  ];
  const { place } = props;
  if (known.some((one) => one.value === value.value)) return known;
  return [...known, choice(place, `${place.kind === 'bone' ? place.bone : 'something'} (missing)`)];
});
const value = computed(() => keyOf(props.place));

function choose(chosen: string): void {
  const { anchor } = choices.value.find((one) => one.value === chosen)!;
  const isBone = anchor.kind === 'bone';
  const offset: Place['offset'] =
    anchor.kind === 'dial'
      ? [0, 0, 0]
      : isBone === (props.place.kind === 'bone')
        ? props.place.offset
        : isBone
          ? [0, 0, 0]
          : [0, 1, 0];
  emit('change', { ...anchor, offset, turn: props.place.turn, keys: emptyCollection<never>() }, null);
}

/** Where the place is at the playhead: its keys rule where it has some. */
const now = computed((): HungValue => {
  const at = newHung();
  hungInto(at, props.place, props.place.keys.order.length > 0 ? engine.state.sheetTime : 0);
  return { offset: Array.from(at.offset, tidy) as Place['offset'], turn: Array.from(at.turn, tidy) as Place['turn'] };
});
/** With keys, what is set is set for this instant: the playing stops there, rather than making keys as it goes. */
function set(value: Partial<HungValue>, gesture: string | null): void {
  if (keyCount.value > 0 && engine.state.isPlaying) engine.playback.pause();
  emit('change', placeSetAt(props.place, engine.state.sheetTime, { ...now.value, ...value }, store.newId()), gesture);
}

const EASES = [
  { value: 'smooth', text: 'smoothly' },
  { value: 'straight', text: 'straight' },
  { value: 'step', text: 'by a leap' },
];
const keyId = computed(() => placeKeyAt(props.place, engine.state.sheetTime));
const keyCount = computed(() => props.place.keys.order.length);
function ease(value: string): void {
  const { keys } = props.place;
  const key = { ...keys.byId[keyId.value!]!, ease: value as 'smooth' };
  emit('change', { ...props.place, keys: { ...keys, byId: { ...keys.byId, [keyId.value!]: key } } }, null);
}
</script>

<template>
  <ChoiceChip :value="value" :choices="choices" :label="label" previews @choose="choose" />, moved by
  <VectorChip
    :value="now.offset"
    :label="`${label}, moved by`"
    unit="m"
    :least="-1000"
    :most="1000"
    @change="(offset, gesture) => set({ offset }, gesture)"
  /><template v-if="turns"
    >, turned by
    <VectorChip
      :value="now.turn"
      :label="`${label}, turned by`"
      unit="°"
      :least="-3600"
      :most="3600"
      @change="(turn, gesture) => set({ turn }, gesture)" /></template
  ><template v-if="keyCount > 0"
    >, by {{ keyCount }} {{ keyCount === 1 ? 'key' : 'keys'
    }}<template v-if="keyId">
      (on from this one
      <ChoiceChip
        :value="place.keys.byId[keyId]!.ease"
        :choices="EASES"
        :label="`${label}, on from this key`"
        @choose="ease"
      />)</template
    ></template
  >
</template>
