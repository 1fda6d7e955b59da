<script setup lang="ts">
import { Button, Segmented } from 'ant-design-vue';
import { EffectClock } from '@jinx/core/simulation';
import { computed, inject, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import { PictureTaker } from '../../engine/pictureTaker';
import PictureCanvas from '../../PictureCanvas.vue';
import type { View } from '@jinx/player/scene';
import { useEffectStore } from '../../stores/effect';
import { tell } from '../../tell';
import { ENGINE } from '../bench';
import { TONE } from '../stage/useProjectFiles';
import { saveBlob } from '../files';
import { plainNumber } from '../entry/numbers';

/** Many instants of the effect at once, from where the stage is seen. Pressing one goes there. */
const props = defineProps<{ view: View; budget: number }>();
const engine = inject(ENGINE)!;
const tone = inject(TONE)!.shown;
const store = useEffectStore();
const [WIDTH, HEIGHT] = [320, 200];
const COUNTS = [8, 12, 24, 48];
/** An edit or a turn of the camera rests this long before the sheet is taken again. */
const REST_MILLISECONDS = 700;
const count = ref<number>(12);
const taken = shallowRef<readonly { seconds: number; picture: ImageBitmap }[]>([]);
const isTaking = ref(false);
const isHeld = ref(false);
const taker = new PictureTaker(engine.shared, WIDTH, HEIGHT);
let run = new AbortController();
let timer = 0;

const instants = computed(() => {
  const { length } = new EffectClock(store.effect!.stretches);
  return Array.from({ length: count.value }, (_, n) => ((n + 0.5) / count.value) * length);
});
async function take(): Promise<void> {
  run.abort();
  run = new AbortController();
  const { signal } = run;
  const [old, seconds] = [taken.value, instants.value];
  isTaking.value = true;
  try {
    const made: { seconds: number; picture: ImageBitmap }[] = [];
    const wanted = { effect: store.effect!, budget: props.budget, seconds, view: props.view, tone: tone.value };
    for await (const picture of taker.take(wanted, signal)) {
      if (signal.aborted) return;
      made.push({ seconds: seconds[made.length]!, picture });
      taken.value = [...made, ...old.slice(made.length, seconds.length)];
    }
  } catch (error) {
    if (!signal.aborted) tell(error);
  } finally {
    if (!signal.aborted) isTaking.value = false;
  }
}
function hold(): void {
  run.abort();
  isTaking.value = false;
  isHeld.value = true;
}
function again(): void {
  isHeld.value = false;
  void take();
}
watch([() => store.effect, () => props.view, tone, count], () => {
  if (isHeld.value) return;
  window.clearTimeout(timer);
  timer = window.setTimeout(() => void take(), REST_MILLISECONDS);
});
void take();
onBeforeUnmount(() => {
  run.abort();
  window.clearTimeout(timer);
  taker.stop();
});

const done = computed(() => taken.value.filter(({ seconds }) => instants.value.includes(seconds)).length);
/** All instants in one picture, a little wider than it is high. */
async function save(): Promise<void> {
  const across = Math.ceil(Math.sqrt(taken.value.length * 1.2));
  const rows = Math.ceil(taken.value.length / across);
  const canvas = new OffscreenCanvas(across * WIDTH, rows * HEIGHT);
  const context = canvas.getContext('2d')!;
  for (const [n, { picture, seconds }] of taken.value.entries()) {
    const [x, y] = [(n % across) * WIDTH, Math.floor(n / across) * HEIGHT];
    context.drawImage(picture, x, y);
    context.fillStyle = '#ececee';
    context.font = '14px sans-serif';
    context.fillText(`${seconds.toFixed(2)} s`, x + 8, y + HEIGHT - 8);
  }
  saveBlob(`${store.effect!.name} instants.png`, await canvas.convertToBlob({ type: 'image/png' }));
}
</script>

<template>
  <section class="sheet" aria-label="Contact sheet">
    <div class="bar">
      <Segmented v-model:value="count" :options="COUNTS" aria-label="How many instants" />
      <span>instants</span>
      <span v-if="isTaking" class="quiet number" role="status">{{ done }} of {{ count }} taken</span>
      <Button v-if="isTaking" type="link" @click="hold">Stop</Button>
      <Button v-else-if="isHeld" type="link" @click="again">Take them again</Button>
      <span class="space"></span>
      <Button type="link" :disabled="isTaking || taken.length === 0" @click="save"> Save as one picture </Button>
    </div>
    <ol class="instants" tabindex="0" aria-label="Instants">
      <li v-for="{ seconds, picture } in taken" :key="seconds">
        <Button
          type="text"
          class="instant"
          :class="{ old: !instants.includes(seconds) }"
          :aria-label="`Go to ${plainNumber(seconds)} s`"
          @click="engine.playback.seekSheet(store.effect!.stretches, seconds)"
        >
          <PictureCanvas :picture="picture" />
          <span class="number">{{ seconds.toFixed(2) }} s</span>
        </Button>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.sheet {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: #161617;
}
.bar {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 4px 12px;
  border-bottom: 1px solid var(--rule);
}
.space {
  flex: 1;
}
.instants {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  list-style: none;
  margin: 0;
  padding: 10px 12px;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(186px, 1fr));
  gap: 8px;
  align-content: start;
}
.instant {
  position: relative;
  display: block;
  width: 100%;
  padding: 0;
  border: 0;
  background: var(--deep);
  color: var(--ink);
  cursor: pointer;
}
.instant canvas {
  display: block;
  width: 100%;
  height: auto;
}
.instant span {
  position: absolute;
  left: 6px;
  bottom: 3px;
  padding: 0 4px;
  border-radius: 3px;
  background: #101011b0;
}
.instant:hover {
  outline: 2px solid var(--accent);
}
.old {
  opacity: 0.45;
}
</style>
