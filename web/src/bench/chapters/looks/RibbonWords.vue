<script setup lang="ts">
import { RIBBON_SETTINGS, type Place, type Ribbon } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import PlaceWords from '../../chips/PlaceWords.vue';
import SettingChip from '../../chips/SettingChip.vue';
import { useChosenPart } from '../../useChosenPart';
import { pieces } from '../forceWords';
import { ribbonSentences } from './ribbonWords';

/** The sentences of the chosen layer's ribbons. */
const store = useEffectStore();
const of = useChosenPart('drawn');
const drawn = computed(() => store.chosen!.drawn as Ribbon);

const WORDS: Record<string, Record<string, string>> = {
  feels: { yes: 'feel their', no: 'feel no' },
  form: { flat: 'a flat band', crossed: 'two bands crossed', tube: 'a round tube' },
  ends: { stays: 'stays until it has faded', 'goes too': 'goes with it' },
};
const sentences = computed(() => ribbonSentences(drawn.value).map(pieces));
const nameOf = (setting: string) => {
  const table = RIBBON_SETTINGS[drawn.value.kind] as Record<string, { name: string }>;
  return table[setting]?.name ?? setting;
};

const setPlace = (end: 'from' | 'to', place: Place, gesture: string | null) =>
  store.changeLayers(
    'place an end of a ribbon',
    (layer) => 'from' in layer.drawn && (layer.drawn[end] = place),
    gesture,
  );
</script>

<template>
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
        :of="of"
        :words="WORDS[piece.setting]"
        :label="nameOf(piece.setting)" /></template
    >.
  </p>
  <p>
    {{ drawn.kind === 'blade' ? 'As wide as the blade is long' : 'As wide as their size' }}, times
    <SettingChip setting="atHead" :of="of" label="width at the head" /> at the
    {{ drawn.kind === 'beam' ? 'far end' : 'head' }} and
    <SettingChip setting="atTail" :of="of" label="width at the tail" /> at the
    {{ drawn.kind === 'beam' ? 'near end' : 'tail' }}, and times
    <SettingChip setting="bulge" :of="of" label="bulge" /> in the middle.
  </p>
  <p>
    It is <SettingChip setting="form" :of="of" :words="WORDS['form']" label="form" />; its look lies along it
    <SettingChip setting="laid" :of="of" label="laid" /><template v-if="drawn.settings.laid.base.value !== 'once'"
      >, beginning anew every <SettingChip setting="tile" :of="of" label="every" /></template
    >.
  </p>
</template>
