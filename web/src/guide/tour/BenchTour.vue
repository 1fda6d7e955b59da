<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { message, Tour } from 'ant-design-vue';
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { TOUR } from './steps';
import { isTouring } from './useTour';

/** Five steps to the first effect. What is asked for is done on the bench itself; the tour goes on once it is, or at a press. */
const store = useEffectStore();
const at = ref(0);
/** The steps with what they point at now: it may have come with the step before. */
const pointed = () =>
  TOUR.map(({ title, words, target }) => ({
    title,
    description: words,
    target: target() ?? undefined,
    placement: 'bottom' as const,
  }));
const steps = shallowRef(pointed());
const pointAnew = () => void nextTick(() => (steps.value = pointed()));
const isDone = computed(() =>
  TOUR.map(({ isDone: was }) => store.effect !== null && was(store.effect, store.chosenId)),
);
/** Which steps were done before it came to them: those are gone through by hand. */
const isDoneAlready = ref(false);
function finish(): void {
  isTouring.value = false;
  void message.success('That is a first effect. The first ten minutes, under Help, go on from here.', 8);
}
useEventListener(document, 'keydown', ({ key }) => key === 'Escape' && (isTouring.value = false));
watch(isTouring, (now) => {
  if (!now) return;
  [at.value, isDoneAlready.value] = [0, isDone.value[0]!];
  pointAnew();
});
watch(at, (now) => (isDoneAlready.value = isDone.value[now] ?? false));
watch(
  () => isDone.value[at.value],
  async (now) => {
    if (!isTouring.value || !now || isDoneAlready.value) return;
    if (at.value === TOUR.length - 1) return finish();
    await nextTick();
    at.value++;
  },
);
watch(
  () => store.effect,
  () => isTouring.value && pointAnew(),
);
</script>

<template>
  <Tour
    v-if="isTouring"
    v-model:current="at"
    :open="true"
    :steps="steps"
    :mask="false"
    :scroll-into-view-options="{ block: 'nearest', inline: 'nearest' }"
    root-class-name="tour"
    @close="isTouring = false"
    @finish="isTouring = false"
  />
</template>

<style>
.tour.ant-tour {
  width: 320px;
}
</style>
