<script setup lang="ts">
import { wholeOf } from '@jinx/core/editing';
import type { Guide } from '@jinx/stage';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { PerspectiveCamera, Vector3 } from 'three';
import { useEventListener } from '@vueuse/core';
import { computed, inject, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { firstCamera, FIRST_VIEW, type View } from '@jinx/player/scene';
import { BELOW, ENGINE } from '../bench';
import { useCommands } from '../commands/registry';
import { areSame, guidesFor } from '../guides';
import { Picture } from '../handles/picture';
import StageHandles from '../handles/StageHandles.vue';
import PixelGlass from '../reading/PixelGlass.vue';
import ProbeGlass from '../reading/ProbeGlass.vue';
import { useElementSize } from './elementSize';
import { extentOfThings, viewOf } from './framing';
import StageFailure from './StageFailure.vue';
import StrikeTool from './StrikeTool.vue';
import { useStageCanvas } from './stageCanvas';
import { useClickToChoose } from './useClickToChoose';
import { measureExtent } from './useExtent';
import { useGuideInstant } from '../guides/useGuideInstant';

/** The stage's window: the picture is drawn by a worker, the camera is steered here. */
const props = defineProps<{ showGuides: boolean; follows: boolean; hasHits: boolean }>();
const emit = defineEmits<{ dropFiles: [files: File[]]; 'update:follows': [follows: boolean]; seen: [view: View] }>();
const engine = inject(ENGINE)!;
const store = useEffectStore();
const holder = ref<HTMLElement>();
const camera = new PerspectiveCamera(FIRST_VIEW.fieldOfView, 1, 0.02, 200);
let controls: OrbitControls | null = null;
const isOver = ref(false);
const { width, height } = useElementSize(holder);
/** Counts the camera's movements. */
const looks = shallowRef(0);
/** The picture as it is seen: handles stand where the stage draws what they belong to. */
const picture = computed(() =>
  looks.value > 0 && width.value > 0
    ? new Picture(camera, props.follows ? engine.tracked.value.followed : [0, 0], width.value, height.value)
    : null,
);

/** The same before it goes along with a figure. */
const near = computed(() =>
  looks.value > 0 && width.value > 0 ? new Picture(camera, [0, 0], width.value, height.value) : null,
);
const below = inject(BELOW)!;
const clicks = useClickToChoose(engine, () => {
  below.value = 'rulers';
  store.page = 'layers';
  void nextTick(() => document.querySelector(`[data-row="${store.chosenId}"]`)?.scrollIntoView({ block: 'nearest' }));
});

const canvas = useStageCanvas(engine, holder);
useEventListener(canvas, 'keydown', orbit);
useEventListener(canvas, 'pointerdown', clicks.press);
useEventListener(canvas, 'click', (event) => void clicks.click(event));

/** Where the stage is seen from now. */
const seen = (): View => ({
  position: camera.position.toArray(),
  target: controls!.target.toArray(),
  fieldOfView: camera.fov,
  follows: props.follows,
});
function sendView(): void {
  const view = seen();
  looks.value++;
  engine.stage.view(view);
  emit('seen', view);
}

/** Looks from somewhere else. */
function look({ position, target, fieldOfView, follows }: View): void {
  controls!.target.fromArray(target);
  camera.position.fromArray(position);
  camera.fov = fieldOfView;
  camera.updateProjectionMatrix();
  controls!.update();
  emit('update:follows', follows);
  sendView();
}
/** Frames what lives of the chosen layers, else what stands on the stage, else what an effect is made for. */
async function frame(): Promise<void> {
  const box =
    (await measureExtent(engine, store.effect!, store.chosenIds)) ?? extentOfThings(store.effect!, engine.rigs.value);
  const followed = props.follows ? engine.tracked.value.followed : ([0, 0] as const);
  look(box ? viewOf(box, seen(), width.value / height.value, followed) : FIRST_VIEW);
}
useCommands({ 'stage.frame': () => void frame() });
defineExpose({ look, seen });

onMounted(() => {
  controls = new OrbitControls(camera, canvas.value!);
  controls.enableDamping = false;
  controls.minDistance = 0.3;
  controls.maxDistance = 60;
  controls.addEventListener('change', sendView);
  look(firstCamera(store.effect!) ?? FIRST_VIEW);
});
onBeforeUnmount(() => controls?.dispose());
watch(canvas, (now, before) => {
  if (!now) return;
  now.tabIndex = 0;
  now.ariaLabel = 'Stage: drag or use the arrow keys to orbit, click to choose a layer';
  if (!before) return;
  controls!.disconnect();
  controls!.connect(now);
});

watch(() => props.follows, sendView);
const instant = useGuideInstant(engine);
let drawn: { readonly isShown: boolean; readonly guides: readonly Guide[] } | null = null;
watch(
  () =>
    [
      store.effect && wholeOf(store.effect).effect,
      store.page === 'layers' ? store.chosenId : '',
      engine.rigs.value,
      engine.meshes.value,
      props.showGuides,
      instant.value,
    ] as const,
  ([effect, chosenId, rigs, meshes, isShown, at]) => {
    const guides = guidesFor(effect, chosenId, rigs, meshes, at);
    // Most edits leave them as they are; lines made anew at every movement of a drag would cost a frame.
    if (drawn?.isShown === isShown && areSame(drawn.guides, guides)) return;
    drawn = { isShown, guides };
    engine.stage.guides(guides, isShown);
  },
  { immediate: true },
);

function drop(event: DragEvent): void {
  isOver.value = false;
  const files = [...(event.dataTransfer?.files ?? [])];
  if (files.length > 0) emit('dropFiles', files);
}
function orbit(event: KeyboardEvent): void {
  const turn = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
  if (!turn || !controls) return;
  event.preventDefault();
  const offset = camera.position.clone().sub(controls.target);
  offset.applyAxisAngle(new Vector3(0, 1, 0), turn[0]! * 0.12);
  offset.y = Math.max(-offset.length() * 0.2, offset.y + turn[1]! * 0.15);
  camera.position.copy(controls.target).add(offset);
  controls.update();
  sendView();
}
</script>

<template>
  <div
    ref="holder"
    class="stage"
    :class="{ over: isOver }"
    @dragover.prevent="isOver = true"
    @dragleave="isOver = false"
    @drop.prevent="drop"
  >
    <div v-if="engine.isLost.value" class="hint" role="status">
      The graphics were taken away from this page. They come back by themselves; nothing of your work is lost.
    </div>
    <div v-if="isOver" class="hint">
      Drop a figure (.glb) to put it on the stage, or a picture for the chosen layer to show
    </div>
    <StageHandles :picture="picture" :is-shown="showGuides" />
    <ProbeGlass :picture="picture" />
    <PixelGlass />
    <StrikeTool :near="near" :has-hits="hasHits" :follows="follows" />
    <StageFailure />
    <slot></slot>
  </div>
</template>

<style scoped>
.stage {
  position: relative;
  overflow: hidden;
  background: var(--deep);
  min-width: 0;
}
.stage > :deep(canvas) {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  display: block;
}
.stage > :deep(canvas:focus-visible) {
  outline-offset: -2px;
}
.hint {
  position: absolute;
  inset: 12px;
  border: 2px dashed var(--accent);
  display: grid;
  place-items: center;
  background: #0009;
  font-size: 18px;
  pointer-events: none;
}
</style>
