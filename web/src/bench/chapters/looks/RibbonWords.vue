<script setup lang="ts">
import { isRibbon, RIBBON_SETTINGS, type NumberSetting, type Place, type Ribbon } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import PlaceWords from '../../chips/PlaceWords.vue';
import SettingChip from '../../chips/SettingChip.vue';
import { useChosenPart } from '../../useChosenPart';
import { pieces } from '../forceWords';
import ColourShapers from '../../colour/ColourShapers.vue';
import MenuButton from '../../chips/MenuButton.vue';
import { ALONG_OPACITIES, ALONG_WIDTHS, ribbonSentences, shapeAlong } from './ribbonWords';

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

const WIDTHS = Object.keys(ALONG_WIDTHS).map((value) => ({ value, text: value }));
const OPACITIES = Object.keys(ALONG_OPACITIES).map((value) => ({ value, text: value }));
const shapeWidth = (name: string) =>
  store.changeLayers('shape a width', ({ drawn }) => {
    if (isRibbon(drawn)) shapeAlong(drawn.settings.width as NumberSetting, ALONG_WIDTHS[name]!, store.newId());
  });
const shapeOpacity = (name: string) =>
  store.changeLayers('shape an opacity', ({ drawn }) => {
    if (isRibbon(drawn)) shapeAlong(drawn.settings.opacity as NumberSetting, ALONG_OPACITIES[name]!, store.newId());
  });
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
    <SettingChip setting="width" :of="of" label="width along it" /> along it
    <MenuButton label="shaped…" :choices="WIDTHS" title="From its head to its tail" previews @choose="shapeWidth" />;
    as opaque as they are, times <SettingChip setting="opacity" :of="of" label="opacity along it" />
    <MenuButton
      label="fading…"
      :choices="OPACITIES"
      title="From its head to its tail"
      previews
      @choose="shapeOpacity"
    />; in their colour, times <SettingChip setting="colour" :of="of" label="colour along it" />.
    <ColourShapers setting="colour" :of="of" label="colour along it" />
  </p>
  <p>
    It is <SettingChip setting="form" :of="of" :words="WORDS['form']" label="form" />; its look lies along it
    <SettingChip setting="laid" :of="of" label="laid" /><template v-if="drawn.settings.laid.base.value !== 'once'"
      >, beginning anew every <SettingChip setting="tile" :of="of" label="every" /></template
    >.
  </p>
</template>
