<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { inject } from 'vue';
import { mirrorEffect } from '@jinx/core/editing';
import { random32, useEffectStore } from '../stores/effect';
import { ENGINE } from './bench';
import CameraWords from './names/CameraWords.vue';
import DialWords from './names/DialWords.vue';
import LinkWords from './names/LinkWords.vue';
import MeasureWords from './names/MeasureWords.vue';
import PaletteWords from './names/PaletteWords.vue';
import SignalWords from './names/SignalWords.vue';
import SiblingWords from './names/SiblingWords.vue';
import PlainChip from './chips/PlainChip.vue';
import QualityWords from './quality/QualityWords.vue';
import SizeAndTempo from './SizeAndTempo.vue';

/** What is set for the effect as a whole. */
const store = useEffectStore();
const engine = inject(ENGINE)!;
const mirror = () => store.change('mirror the effect', (draft) => mirrorEffect(draft, engine.rigs.value));
const setPreRoll = (seconds: number, gesture: string | null) =>
  store.change('set the pre-roll', (draft) => (draft.stretches.preRoll = seconds), gesture);
const setSeed = (seed: number, gesture: string | null = null) =>
  store.change('set the seed', (draft) => (draft.seed = seed), gesture);
</script>

<template>
  <h2 class="page-name">{{ store.effect!.name }}, as a whole</h2>
  <div class="page">
    <h3>Size and tempo</h3>
    <SizeAndTempo />
    <p v-if="store.effect!.stretches.hold.kind !== 'none'">
      When it is first seen it has held for
      <PlainChip
        :value="store.effect!.stretches.preRoll"
        label="pre-roll: how long it has held when first seen"
        unit="s"
        :least="0"
        :most="60"
        @change="setPreRoll"
      />.
    </p>
    <h3>Palette</h3>
    <PaletteWords />
    <h3>Measures</h3>
    <MeasureWords />
    <h3>Dials</h3>
    <DialWords />
    <h3>Signals</h3>
    <SignalWords />
    <h3>Cameras</h3>
    <CameraWords />
    <h3>Quality</h3>
    <QualityWords />
    <h3>Linked effects</h3>
    <LinkWords />
    <h3>Siblings</h3>
    <SiblingWords />
    <h3>Sides</h3>
    <p>
      Made for one hand, it serves the other mirrored: sources, launches, spins, paths, and bones of the other side.
      <Button type="link" @click="mirror">Mirror left and right</Button>
    </p>
    <h3>Chance</h3>
    <p>
      Its seed is
      <PlainChip :value="store.effect!.seed" label="seed" :least="0" :most="4294967295" whole @change="setSeed" />:
      the same seed is the same picture.
      <Button type="link" @click="setSeed(random32())">Another throw</Button>
    </p>
  </div>
</template>
