<script setup lang="ts">
import { Tooltip as ATooltip } from 'ant-design-vue';

/** Says above a field why it does not take what was typed, so that neither the field nor the next one is covered. */
defineProps<{ problem: string }>();
</script>

<template>
  <ATooltip :open="problem !== ''" placement="topLeft" :overlay-style="{ maxWidth: '300px' }">
    <template #title
      ><span role="alert">{{ problem }}</span></template
    >
    <slot></slot>
  </ATooltip>
</template>
