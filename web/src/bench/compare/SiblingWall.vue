<script setup lang="ts">
import type { Effect } from '@jinx/core/document';
import { inject, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import { api, type EffectKin } from '../../api';
import { PictureTaker } from '../../engine/pictureTaker';
import PictureCanvas from '../../PictureCanvas.vue';
import type { View } from '@jinx/player/scene';
import { useEffectStore } from '../../stores/effect';
import { tell } from '../../tell';
import { ENGINE } from '../bench';
import { TONE } from '../stage/useProjectFiles';
import { plainNumber } from '../entry/numbers';

/** This effect and its siblings side by side, of one instant and from one place. Pressing one compares with it. */
const props = defineProps<{ view: View; budget: number }>();
const emit = defineEmits<{ choose: [id: string] }>();
const engine = inject(ENGINE)!;
const tone = inject(TONE)!.shown;
const store = useEffectStore();
const [WIDTH, HEIGHT] = [320, 200];
/** An edit, a turn of the camera or a step rests this long before the pictures are taken again. */
const REST_MILLISECONDS = 700;
const taken = shallowRef<readonly Taken[]>([]);
const told = ref('');
const taker = new PictureTaker(engine.shared, WIDTH, HEIGHT);
let run = new AbortController();
let timer = 0;

interface Taken {
  readonly id: string;
  readonly name: string;
  readonly picture: ImageBitmap;
}

/** Whom it follows, who follows it, and who follows the same as it. */
async function family(): Promise<EffectKin[]> {
  const { siblingOf, siblings } = store.kin;
  const others = siblingOf ? (await api.effect(siblingOf.id)).siblings : [];
  return [...(siblingOf ? [siblingOf] : []), ...others.filter(({ id }) => id !== store.id), ...siblings];
}
async function take(): Promise<void> {
  run.abort();
  run = new AbortController();
  const { signal } = run;
  const old = taken.value;
  const seconds = engine.state.sheetTime;
  told.value = 'Taking their pictures…';
  try {
    const all: { id: string; name: string; effect: Effect | null }[] = [
      { id: '', name: `${store.effect!.name}, on the bench`, effect: store.effect },
      ...(await family()).map((each) => ({ ...each, effect: null })),
    ];
    const made: Taken[] = [];
    for (const { id, name, effect: own } of all) {
      const effect = own ?? (await api.effect(id)).document;
      const wanted = { effect, budget: props.budget, seconds: [seconds], view: props.view, tone: tone.value };
      for await (const picture of taker.take(wanted, signal)) made.push({ id, name, picture });
      if (signal.aborted) return;
      taken.value = [...made, ...old.slice(made.length, all.length)];
    }
    told.value = `${all.length} of one family at ${plainNumber(seconds)} s`;
  } catch (error) {
    if (signal.aborted) return;
    told.value = '';
    tell(error);
  }
}
watch(
  [() => store.effect, () => props.view, () => engine.state.step, () => engine.state.isPlaying],
  () => {
    window.clearTimeout(timer);
    if (!engine.state.isPlaying) timer = window.setTimeout(() => void take(), REST_MILLISECONDS);
    else told.value = 'Stop at an instant to see them at it.';
  },
  { immediate: true },
);
onBeforeUnmount(() => {
  run.abort();
  window.clearTimeout(timer);
  taker.stop();
});
</script>

<template>
  <section aria-label="Siblings">
    <p class="quiet number" role="status">{{ told }}</p>
    <ol class="wall">
      <li v-for="{ id, name, picture } in taken" :key="id">
        <component
          :is="id ? 'button' : 'div'"
          :type="id ? 'button' : undefined"
          class="one"
          :aria-label="id ? `Compare with ${name}` : undefined"
          @click="id && emit('choose', id)"
        >
          <PictureCanvas :picture="picture" :role="id ? 'presentation' : 'img'" :aria-label="id ? undefined : name" />
          <span>{{ name }}</span>
        </component>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.wall {
  list-style: none;
  margin: 0;
  padding: 6px 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 10px;
}
.one {
  display: block;
  width: 100%;
  padding: 0 0 4px;
  border: 0;
  background: none;
  color: var(--ink);
  text-align: left;
}
button.one {
  cursor: pointer;
}
.one canvas {
  display: block;
  width: 100%;
  height: auto;
  background: var(--deep);
}
button.one:hover canvas {
  outline: 2px solid var(--accent);
}
</style>
