<script setup lang="ts">
import { stepToChange, type PictureRef, type Step } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import PictureMenu from './PictureMenu.vue';

/** Which picture a step of a look shows. */
const props = defineProps<{ stepId: string; step: Step }>();
const store = useEffectStore();
const picture = computed(() => ('picture' in props.step ? props.step.picture : null));

const show = (chosen: PictureRef | null) =>
  store.change(`show ${chosen?.name ?? 'no picture'}`, (draft) => {
    const step = stepToChange(draft, store.chosenId, props.stepId);
    if (step && 'picture' in step) step.picture = chosen;
  });
</script>

<template><PictureMenu :picture="picture" @choose="show" /></template>
