<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { placeKeyAt, placeSetAt, type HungValue, type Place } from '@jinx/core/document';
import { hungInto, newHung } from '@jinx/core/simulation';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import ChoiceChip from './ChoiceChip.vue';
import { tidy } from '../rulers/keyPlaces';
import { anchorsOf, hungOn, keyOfAnchor } from '../values/anchors';
import VectorChip from './VectorChip.vue';

/** Where something stands, in words: in the effect, in the world, at a thing's feet or on a bone; how far and how turned. */
const props = defineProps<{ place: Place; label: string; turns?: boolean }>();
const emit = defineEmits<{ change: [place: Place, gesture: string | null] }>();
const engine = inject(ENGINE)!;
const store = useEffectStore();

const choices = computed(() => {
  const known = anchorsOf(store.effect!, engine.rigs.value);
  const { place } = props;
  if (known.some((one) => one.value === value.value)) return known;
  return [
    ...known,
    { value: value.value, text: `${place.kind === 'bone' ? place.bone : 'something'} (missing)`, anchor: place },
  ];
});
const value = computed(() => keyOfAnchor(props.place));

function choose(chosen: string): void {
  const { anchor } = choices.value.find((one) => one.value === chosen)!;
  emit('change', hungOn(props.place, anchor), null);
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

const ZERO: Place['offset'] = [0, 0, 0];
const isZero = (value: Place['offset']) => value.every((one) => one === 0);
const isMoved = computed(() => !isZero(now.value.offset));
const isTurned = computed(() => props.turns && !isZero(now.value.turn));
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
  /><Button
    v-if="isMoved"
    type="text"
    class="zero"
    :aria-label="`${label}: zero the place`"
    title="Puts it at 0, 0, 0 of what it hangs on"
    @click="set({ offset: ZERO }, null)"
  >
    zero</Button
  ><template v-if="turns"
    >, turned by
    <VectorChip
      :value="now.turn"
      :label="`${label}, turned by`"
      unit="°"
      :least="-3600"
      :most="3600"
      @change="(turn, gesture) => set({ turn }, gesture)" /></template
  ><Button
    v-if="isTurned"
    type="text"
    class="zero"
    :aria-label="`${label}: zero the turn`"
    title="Takes its turn away"
    @click="set({ turn: ZERO }, null)"
  >
    zero</Button
  ><Button
    v-if="isTurned && isMoved"
    type="text"
    class="zero"
    :aria-label="`${label}: zero both`"
    title="Puts it at 0, 0, 0 of what it hangs on, not turned"
    @click="set({ offset: ZERO, turn: ZERO }, null)"
  >
    both</Button
  ><template v-if="keyCount > 0"
    >, by {{ keyCount }} {{ keyCount === 1 ? 'key' : 'keys'
    }}<template v-if="keyId">
      (on from this one
      <ChoiceChip
        :value="place.keys.byId[keyId]!.ease"
        :choices="EASES"
        :label="`${label}, on from this key`"
        previews
        @choose="ease"
      />)</template
    ></template
  >
</template>
