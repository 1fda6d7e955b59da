<script setup lang="ts">
import type { Step } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { useAssetActs } from '../acts/useAssetActs';
import { ENGINE } from '../bench';
import PictureMenu from './PictureMenu.vue';

/** Which picture a step of a look shows. */
const props = defineProps<{ stepId: string; step: Step }>();
const picture = computed(() => ('picture' in props.step ? props.step.picture : null));

const { giveStep } = useAssetActs(inject(ENGINE)!);
</script>

<template><PictureMenu :picture="picture" @choose="giveStep(stepId, $event)" /></template>
