<script setup lang="ts">
import type { Effect } from '@jinx/core/document';
import { computed, inject } from 'vue';
import type { ToneChoice } from '../../api';
import { useEffectStore } from '../../stores/effect';
import ColourField from '../colour/ColourField.vue';
import { cssOf } from '../values/colour';
import ChoiceChip from '../chips/ChoiceChip.vue';
import PictureMenu from '../chips/PictureMenu.vue';
import PlainChip from '../chips/PlainChip.vue';
import { pickFile } from '../files';
import type { PickItem } from '../pick/pick';
import { TONE } from '../stage/useProjectFiles';
import SwitchChip from '../chips/SwitchChip.vue';

/** Lens and air in sentences. */
const store = useEffectStore();
const lens = computed(() => store.effect!.stage.lens);
const fog = computed(() => store.effect!.stage.air.fog);
const mirrored = computed(() => store.effect!.stage.air.surroundings);
const COLOURS = [
  { value: 'horizon', text: 'the horizon' },
  { value: 'own', text: 'its own colour' },
];
/** What fog of a colour of its own begins with. */
const FIRST_FOG = '#8a94a0';

const set = (label: string, recipe: (stage: Effect['stage']) => void, gesture: string | null = null) =>
  store.change(label, (draft) => recipe(draft.stage), gesture);

const tone = inject(TONE)!;
const TABLE = 'a table of the game…';
const tones = computed((): PickItem[] => [
  { value: 'filmic', text: 'filmic', help: 'Bright light rolls off softly and loses some of its hue' },
  { value: 'neutral', text: 'neutral', help: 'Colours stay as they are set as long as the screen can show them' },
  { value: 'none', text: 'none', help: 'What is brighter than the screen is cut off' },
  ...(tone.table.value ? [{ value: 'table', text: tone.table.value, help: 'The table that the project keeps' }] : []),
  { value: TABLE, text: TABLE, help: 'A colour table as text (.cube), as the game has it' },
]);
function setTone(value: string): void {
  if (value === TABLE) pickFile('.cube', (file) => void tone.bring(file));
  else void tone.choose(value as ToneChoice);
}
</script>

<template>
  <p>
    Bloom is
    <SwitchChip
      :is-on="lens.bloom.isOn"
      label="bloom"
      @turn="(isOn) => set('switch bloom', (stage) => (stage.lens.bloom.isOn = isOn))"
    /><template v-if="lens.bloom.isOn"
      >: what is brighter than the screen shines over by
      <PlainChip
        :value="lens.bloom.strength"
        label="strength of bloom"
        unit="%"
        :least="0"
        :most="400"
        @change="(value, drag) => set('set bloom', (stage) => (stage.lens.bloom.strength = value), drag)" />, as far
      as
      <PlainChip
        :value="lens.bloom.spread"
        label="spread of bloom"
        unit="% of the height"
        :least="1"
        :most="50"
        @change="
          (value, drag) => set('spread bloom', (stage) => (stage.lens.bloom.spread = value), drag)
        " /></template
    >.
  </p>
  <p>
    The picture is exposed by
    <PlainChip
      :value="lens.exposure"
      label="exposure"
      unit="stops"
      :least="-8"
      :most="8"
      @change="(value, drag) => set('set the exposure', (stage) => (stage.lens.exposure = value), drag)"
    />.
  </p>
  <p>
    Shining things mirror
    <PictureMenu
      :picture="mirrored.picture"
      without="the sky of the surround"
      @choose="(value) => set('choose what is mirrored', (stage) => (stage.air.surroundings.picture = value))"
    /><template v-if="mirrored.picture"
      >, switched
      <SwitchChip
        :is-on="mirrored.isOn"
        label="mirrored picture"
        @turn="(isOn) => set('switch what is mirrored', (stage) => (stage.air.surroundings.isOn = isOn))" />, at
      <PlainChip
        :value="mirrored.brightness"
        label="brightness of what is mirrored"
        unit="×"
        :least="0"
        :most="100"
        @change="
          (value, drag) =>
            set('brighten what is mirrored', (stage) => (stage.air.surroundings.brightness = value), drag)
        " />
      its brightness, turned by
      <PlainChip
        :value="mirrored.turn"
        label="turn of what is mirrored"
        unit="°"
        :least="-360"
        :most="360"
        @change="
          (value, drag) => set('turn what is mirrored', (stage) => (stage.air.surroundings.turn = value), drag)
        " /></template
    >.
  </p>
  <p>
    Fog is
    <SwitchChip
      :is-on="fog.isOn"
      label="fog"
      @turn="(isOn) => set('switch fog', (stage) => (stage.air.fog.isOn = isOn))"
    /><template v-if="fog.isOn"
      >: a metre of it hides
      <PlainChip
        :value="fog.density"
        label="density of fog"
        unit="%"
        :least="0"
        :most="95"
        @change="(value, drag) => set('set the fog', (stage) => (stage.air.fog.density = value), drag)" />, thinning
      to a third every
      <PlainChip
        :value="fog.height"
        label="height of fog"
        unit="m"
        :least="0.05"
        :most="1000"
        @change="(value, drag) => set('set the height of fog', (stage) => (stage.air.fog.height = value), drag)" />
      up, coloured as
      <ChoiceChip
        :value="fog.colour === null ? 'horizon' : 'own'"
        :choices="COLOURS"
        label="colour of fog"
        @choose="
          (value) => set('colour the fog', (stage) => (stage.air.fog.colour = value === 'own' ? FIRST_FOG : null))
        " /><ColourField
        v-if="fog.colour !== null"
        :hex="fog.colour"
        label="the fog’s own colour"
        @change="(hex) => set('colour the fog', (stage) => (stage.air.fog.colour = hex), 'fog colour')"
        @choose="
          (entry) =>
            set('colour the fog', (stage) => (stage.air.fog.colour = cssOf({ palette: entry }, store.effect!)))
        " /></template
    >.
  </p>
  <p>
    The project’s tone curve is
    <ChoiceChip :value="tone.choice.value" :choices="tones" label="tone curve of the project" @choose="setTone" />.
  </p>
</template>
