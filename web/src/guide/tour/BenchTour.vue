<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { message, Tour } from 'ant-design-vue';
import { computed, nextTick, ref, watch } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { TOUR } from './steps';
import { isTouring } from './useTour';

/** Five steps to the first effect. What is asked for is done on the bench itself; the tour goes on once it is, or at a press. */
const store = useEffectStore();
const at = ref(0);
/** Raised as the effect changes: what a step points at may have come with the step before. */
const count = ref(0);
const steps = computed(() =>
  count.value >= 0
    ? TOUR.map(({ title, words, target }) => ({
        title,
        description: words,
        target: target() ?? undefined,
        placement: 'bottom' as const,
      }))
    : [],
);
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
  if (now) [at.value, isDoneAlready.value] = [0, isDone.value[0]!];
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
  () => isTouring.value && void nextTick(() => count.value++),
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
