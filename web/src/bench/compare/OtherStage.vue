<script setup lang="ts">
import { listed } from '@jinx/core/document';
import { inject, onBeforeUnmount, onMounted, ref, watch, watchEffect } from 'vue';
import { Engine } from '../../engine/engine';
import type { View } from '@jinx/player/scene';
import { useEffectStore } from '../../stores/effect';
import { tell } from '../../tell';
import { ENGINE } from '../bench';
import { useStageCanvas } from '../stage/stageCanvas';
import { TONE } from '../stage/useProjectFiles';
import { useOther } from './other';

/** The other effect's picture: of the same instant, by the same seed, seen from the same place. */
const props = defineProps<{ view: View; budget: number }>();
const main = inject(ENGINE)!;
const tone = inject(TONE)!.shown;
const store = useEffectStore();
const other = useOther();
const engine = new Engine(main.shared, false);
const holder = ref<HTMLElement>();
const clip = ref<HTMLElement>();
const isLoaded = ref(false);
let loads = 0;
const canvas = useStageCanvas(engine, clip);
watchEffect(() => {
  canvas.value?.setAttribute('role', 'img');
  canvas.value?.setAttribute('aria-label', `Picture of ${other.name.value}`);
});

/** Goes where the bench's effect is; what was let go there is let go here at the same step. */
function follow(): void {
  const { step, letGoStep } = main.state;
  engine.playback.seek(step, letGoStep ?? undefined);
}
/** The same blows, and signals of the same name, come here at the same steps. */
function takeOutside(): void {
  const { strikes, signals } = main.outside.value;
  const [own, theirs] = [store.effect!.signals, other.effect.value?.signals];
  const known = theirs ? listed(theirs) : [];
  const named = (id: string) => known.find(({ item }) => item.name === own.byId[id]?.name)?.id ?? id;
  engine.simulation.takeOutside({
    strikes,
    signals: signals.map(({ signal, step }) => ({ signal: named(signal), step })),
  });
}
async function load(): Promise<void> {
  const effect = other.effect.value;
  if (!effect) return;
  const mine = ++loads;
  isLoaded.value = false;
  try {
    await engine.edit({ ...effect, seed: store.effect!.seed }, props.budget);
    if (mine !== loads) return;
    takeOutside();
    follow();
    await engine.simulation.settled();
    await engine.stage.pixels(1, 1);
    if (mine === loads) isLoaded.value = true;
  } catch (error) {
    tell(error);
  }
}
onMounted(() => {
  engine.stage.guides([], false);
  engine.stage.view(props.view);
  void load();
});
watch([other.effect, () => store.effect?.seed, () => props.budget], load);
watch(
  () => props.view,
  (view) => engine.stage.view(view),
);
watch(tone, (now) => engine.stage.send({ kind: 'tone', tone: now }), { immediate: true });
watch(main.outside, takeOutside);
const unheard = main.playback.listen(follow);
onBeforeUnmount(() => {
  unheard();
  engine.stop();
});

const put = (share: number) => (other.share.value = Math.min(1, Math.max(0, share)));
/** The wipe is moved by its border. */
function move(event: PointerEvent): void {
  if (!(event.buttons & 1)) return;
  const { left, width } = holder.value!.getBoundingClientRect();
  put((event.clientX - left) / width);
}
function grab(event: PointerEvent): void {
  (event.target as HTMLElement).setPointerCapture(event.pointerId);
}
function nudge(event: KeyboardEvent): void {
  const by = { ArrowLeft: -0.02, ArrowRight: 0.02, Home: -1, End: 1 }[event.key];
  if (by === undefined) return;
  event.preventDefault();
  put(other.share.value + by);
}
</script>

<template>
  <div ref="holder" class="other" :class="other.pictures.value" :data-other="isLoaded ? 'shown' : 'loading'">
    <div
      ref="clip"
      class="clip"
      :style="other.pictures.value === 'wipe' ? { clipPath: `inset(0 0 0 ${other.share.value * 100}%)` } : {}"
    >
      <span class="tag right" role="status">{{ other.name.value }}{{ isLoaded ? '' : ': being computed…' }}</span>
    </div>
    <template v-if="other.pictures.value === 'wipe'">
      <span class="tag left">{{ store.effect!.name }}</span>
      <div
        class="border"
        role="slider"
        tabindex="0"
        aria-label="where one picture ends and the other begins"
        :aria-valuenow="Math.round(other.share.value * 100)"
        aria-valuemin="0"
        aria-valuemax="100"
        :style="{ left: `${other.share.value * 100}%` }"
        @pointerdown="grab"
        @pointermove="move"
        @keydown="nudge"
      ></div>
    </template>
  </div>
</template>

<style scoped>
.other {
  position: relative;
  overflow: hidden;
  min-width: 0;
  background: var(--deep);
}
.other.wipe {
  position: absolute;
  inset: 0;
  background: none;
  pointer-events: none;
}
.other.beside {
  border-left: 2px solid var(--rule);
}
.clip {
  position: absolute;
  inset: 0;
}
.clip > :deep(canvas) {
  width: 100%;
  height: 100%;
  display: block;
}
.tag {
  position: absolute;
  bottom: 40px;
  padding: 1px 7px;
  border-radius: 3px;
  background: #101011c8;
  color: var(--ink);
}
.tag.right {
  right: 10px;
}
.tag.left {
  left: 10px;
}
.border {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 16px;
  margin-left: -8px;
  cursor: ew-resize;
  pointer-events: auto;
  touch-action: none;
  background: linear-gradient(to right, transparent 7px, var(--accent) 7px, var(--accent) 9px, transparent 9px);
}
</style>
