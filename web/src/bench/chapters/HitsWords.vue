<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { firstHit, type Hit, listed, type Place, withItem, withoutItem } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import MuteButton from '../chips/MuteButton.vue';
import ChoiceChip from '../chips/ChoiceChip.vue';
import PlaceWords from '../chips/PlaceWords.vue';
import PlainChip from '../chips/PlainChip.vue';
import SettingChip from '../chips/SettingChip.vue';

/** The hits at which the chosen layer's particles are born: a list, beside strikes from outside. */
const store = useEffectStore();
const hits = computed(() => {
  const { source } = store.chosen!;
  return source.kind === 'hits' ? listed(source.hits) : [];
});
const STRETCHES = [
  { value: 'opening', text: 'the opening' },
  { value: 'hold', text: 'the hold' },
  { value: 'closing', text: 'the closing' },
];
const change = (label: string, id: string, part: Partial<Hit>, gesture: string | null = null) =>
  store.changeLayer(
    label,
    ({ source }) => {
      const hit = source.kind === 'hits' ? source.hits.byId[id] : undefined;
      if (hit) Object.assign(hit, part);
    },
    gesture,
  );
const add = () =>
  store.changeLayer('add a hit', ({ source }) => {
    if (source.kind !== 'hits') return;
    const last = hits.value[hits.value.length - 1]?.item;
    const made: Hit = last ? { ...last, at: last.at + 0.3 } : firstHit(store.effect!);
    source.hits = withItem(source.hits, store.newId(), made);
  });
const remove = (id: string) =>
  store.changeLayer('remove a hit', ({ source }) => {
    if (source.kind === 'hits') source.hits = withoutItem(source.hits, id);
  });
</script>

<template>
  <p>
    Each hit bears <SettingChip setting="source.perHit" label="births a hit" /> at its full strength. Strike while it
    plays: with Strike, under the stage, each click strikes there; the key X strikes the middle.
  </p>
  <p v-for="({ id, item }, n) in hits" :key="id" :data-hit="n" :class="{ muted: item.muted }">
    A hit
    <PlainChip
      :value="item.at"
      :label="`hit ${n + 1}, time`"
      unit="s"
      :least="0"
      :most="3600"
      @change="(at, gesture) => change('time a hit', id, { at }, gesture)"
    />
    into
    <ChoiceChip
      :value="item.stretch"
      :choices="STRETCHES"
      :label="`hit ${n + 1}, stretch`"
      previews
      @choose="change('time a hit', id, { stretch: $event as Hit['stretch'] })"
    />
    at
    <PlaceWords
      :place="item.place"
      :label="`hit ${n + 1}, place`"
      turns
      @change="(place: Place, gesture: string | null) => change('place a hit', id, { place }, gesture)"
    />, with
    <PlainChip
      :value="item.strength"
      :label="`hit ${n + 1}, strength`"
      unit="%"
      :least="0"
      :most="1000"
      @change="(strength, gesture) => change('change a hit', id, { strength }, gesture)"
    />
    of the full strength
    <MuteButton
      :muted="item.muted"
      :what="`hit ${n + 1}`"
      @mute="(muted) => change(muted ? 'mute a hit' : 'unmute a hit', id, { muted })"
    />
    <Button type="text" title="Remove this hit" :aria-label="`Remove hit ${n + 1}`" @click="remove(id)"> × </Button>
  </p>
  <p><Button type="link" @click="add">Add a hit</Button></p>
</template>
