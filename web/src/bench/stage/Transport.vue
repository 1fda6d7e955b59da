<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { ReloadOutlined, RetweetOutlined, StepBackwardOutlined, StepForwardOutlined } from '@ant-design/icons-vue';
import { listed } from '@jinx/core/document';
import { playingOf, setPlaying as setPlayingOf, type Playing } from '@jinx/core/editing';
import { computed, inject } from 'vue';
import { random32, useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import ChoiceChip from '../chips/ChoiceChip.vue';
import { useCommands } from '../commands/registry';
import MenuButton from '../chips/MenuButton.vue';
import { PLAYINGS } from './playings';

const engine = inject(ENGINE)!;
const store = useEffectStore();
const { state } = engine;
const SPEEDS = [1, 0.5, 0.25, 0.1];
const toggle = () => (state.isPlaying ? engine.playback.pause() : engine.playback.play());
const step = (by: number) => engine.playback.stepBy(by);
const slower = () => engine.playback.setSpeed(SPEEDS[(SPEEDS.indexOf(state.speed) + 1) % SPEEDS.length]!);
const again = () => engine.playback.replay();
const anotherThrow = () => store.change('another throw', (draft) => (draft.seed = random32()));
const signals = computed(() => listed(store.effect!.signals).map(({ id, item }) => ({ value: id, text: item.name })));
const stretches = computed(() => store.effect!.stretches);
const playing = computed(() => playingOf(store.effect!));
const setPlaying = (to: string) => store.change('change how it plays', (draft) => setPlayingOf(draft, to as Playing));
const letGo = () => {
  if (stretches.value.hold.kind !== 'none' && !state.isLetGo) engine.playback.letGo();
};
useCommands({
  'play.toggle': toggle,
  'play.back': () => step(-1),
  'play.on': () => step(1),
  'play.slower': slower,
  'play.again': again,
  'play.letGo': letGo,
  'effect.anotherThrow': anotherThrow,
});
</script>

<template>
  <div class="transport" data-guide="bench#transport" role="toolbar" aria-label="Playing">
    <Button
      type="text"
      class="play"
      :aria-label="state.isPlaying ? 'Pause' : 'Play'"
      :title="state.isPlaying ? 'Pause (Space)' : 'Play (Space)'"
      @click="toggle"
    >
      <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true">
        <path :d="state.isPlaying ? 'M2 1h3.5v12H2zM8.5 1H12v12H8.5z' : 'M2 1l11 6-11 6z'" fill="currentColor" />
      </svg>
    </Button>
    <span class="number time painted-apart" data-time>{{ state.sheetTime.toFixed(3) }} s</span>
    <Button type="text" title="One step back (comma)" aria-label="One step back" @click="step(-1)">
      <StepBackwardOutlined />
    </Button>
    <Button type="text" title="One step on (point)" aria-label="One step on" @click="step(1)">
      <StepForwardOutlined />
    </Button>
    <Button
      type="text"
      :class="{ on: state.speed < 1 }"
      title="Slow motion: full speed, a half, a quarter, a tenth"
      :aria-label="`Slow motion: ${state.speed}×`"
      @click="slower"
    >
      {{ state.speed }}×
    </Button>
    <Button type="text" title="From the beginning" aria-label="Replay" @click="again">
      <ReloadOutlined />
    </Button>
    <Button
      type="text"
      title="Another throw: the same effect with other random draws"
      aria-label="Another throw"
      @click="anotherThrow"
    >
      <RetweetOutlined />
    </Button>
    <ChoiceChip :value="playing" :choices="PLAYINGS" label="how it plays" previews @choose="setPlaying" />
    <Button
      v-if="playing !== 'once'"
      type="text"
      :disabled="state.isLetGo"
      title="End the hold: the closing begins (L)"
      @click="letGo"
    >
      Let go
    </Button>

    <MenuButton
      v-if="signals.length"
      label="Announce…"
      :choices="signals"
      title="A signal of the effect, as the game would announce it now"
      @choose="engine.simulation.announce($event)"
    />
    <slot></slot>
  </div>
</template>

<style scoped>
.transport {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 10px;
  white-space: nowrap;
  overflow: hidden;
  border-top: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
  background: var(--ground);
}
.play {
  color: var(--ink);
  display: flex;
}
.time {
  min-width: 66px;
}
</style>
