<script setup lang="ts">
import { atBone, atEffect, newRibbon, RIBBON_SETTINGS, type DrawnAs, type Place } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { holdingBone, tipOf } from '../blade';
import ChoiceChip from '../ChoiceChip.vue';
import PlaceWords from '../PlaceWords.vue';
import SettingChip from '../SettingChip.vue';
import { pieces } from './forceWords';

/** What the chosen layer's particles are drawn as, and the sentences of its ribbons. */
const store = useEffectStore();
const engine = inject(ENGINE)!;
const drawn = computed(() => store.chosen!.drawn);

const KINDS: { value: DrawnAs['kind']; text: string }[] = [
  { value: 'sprite', text: 'sprites, each by itself' },
  { value: 'trail', text: 'trails behind them' },
  { value: 'strand', text: 'strands through them' },
  { value: 'blade', text: 'the sweep of a blade' },
  { value: 'beam', text: 'beams' },
];
const SENTENCES: Record<Exclude<DrawnAs['kind'], 'sprite'>, readonly string[]> = {
  trail: [
    'A point is laid every {every}, by the clock {seconds}, and stays for {lasts}',
    'Laid points keep {drift} of the velocity and {feels} forces. When its particle dies the trail {ends}. At most {most} lie at once',
  ],
  strand: ['Strung on {strands} strands in the order of their births, cut at gaps over {longest}'],
  blade: ['While a particle lives, what the blade has passed over stays for {lasts}'],
  beam: [
    'While a particle lives it sags by {sag}, and is thrown aside by {jag} every {jagSize}, striking anew {strikes}',
    'It has {branches} of up to {branchLength}, and reaches out at {speed}',
  ],
};
const WORDS: Record<string, Record<string, string>> = {
  feels: { yes: 'feel their', no: 'feel no' },
  ends: { stays: 'stays until it has faded', 'goes too': 'goes with it' },
};
const sentences = computed(() => (drawn.value.kind === 'sprite' ? [] : SENTENCES[drawn.value.kind].map(pieces)));
const nameOf = (setting: string) => {
  const { kind } = drawn.value;
  const table = kind === 'sprite' ? {} : (RIBBON_SETTINGS[kind] as Record<string, { name: string }>);
  return table[setting]?.name ?? setting;
};

/** A first blade: what the first figure that holds anything holds, or a metre across the effect. */
function firstPlaces(): [Place, Place] {
  for (const [thing, rig] of engine.rigs.value) {
    const bone = holdingBone(rig);
    if (bone < 0) continue;
    const { name } = rig.bones[bone]!;
    return [atBone(thing, name), atBone(thing, name, tipOf(rig, bone))];
  }
  return [atEffect([-0.5, 1, 0]), atEffect([0.5, 1, 0])];
}
function choose(kind: string): void {
  store.changeLayer('choose how particles are drawn', (layer) => {
    const places: [Place, Place] =
      'from' in layer.drawn
        ? [layer.drawn.from, layer.drawn.to]
        : kind === 'blade'
          ? firstPlaces()
          : [atEffect([0, 1, 0]), atEffect([2, 1, 0])];
    layer.drawn = kind === 'sprite' ? { kind } : newRibbon(kind as 'trail', ...places);
  });
}
const setPlace = (end: 'from' | 'to', place: Place, gesture: string | null) =>
  store.changeLayer(
    'place an end of a ribbon',
    (layer) => 'from' in layer.drawn && (layer.drawn[end] = place),
    gesture,
  );
</script>

<template>
  <p>Drawn as <ChoiceChip :value="drawn.kind" :choices="KINDS" label="drawn as" @choose="choose" />.</p>
  <p v-if="'from' in drawn">
    From
    <PlaceWords
      :place="drawn.from"
      label="ribbon, from"
      @change="(place, gesture) => setPlace('from', place, gesture)"
    />
    to
    <PlaceWords :place="drawn.to" label="ribbon, to" @change="(place, gesture) => setPlace('to', place, gesture)" />.
  </p>
  <p v-for="(sentence, which) in sentences" :key="`${drawn.kind}/${which}`">
    <template v-for="(piece, n) in sentence" :key="n"
      ><template v-if="typeof piece === 'string'">{{ piece }}</template
      ><SettingChip
        v-else-if="'setting' in piece"
        :setting="piece.setting"
        of="ribbon"
        :words="WORDS[piece.setting]"
        :label="nameOf(piece.setting)" /></template
    >.
  </p>
  <p v-if="drawn.kind !== 'sprite'">
    {{ drawn.kind === 'blade' ? 'As wide as the blade is long' : 'As wide as their size' }}, times
    <SettingChip setting="atHead" of="ribbon" label="width at the head" /> at the
    {{ drawn.kind === 'beam' ? 'far end' : 'head' }} and
    <SettingChip setting="atTail" of="ribbon" label="width at the tail" /> at the
    {{ drawn.kind === 'beam' ? 'near end' : 'tail' }}.
  </p>
</template>
