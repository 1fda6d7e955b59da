<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { ConfigProvider } from 'ant-design-vue';
import { defineAsyncComponent, onMounted, ref, watch } from 'vue';
import { isMade, tellMade } from './made';
import { THEME } from './theme';

const AppBeside = defineAsyncComponent(() => import('./AppBeside.vue'));
const LATEST_MILLISECONDS = 2000;
const IDLE_MILLISECONDS = 500;
const hasBeside = ref(false);
// Pages of thumbnails are made when these come; others say so themselves, or have had their time.
const onLoad = ({ target }: Event) => target instanceof HTMLImageElement && tellMade();
useEventListener(document, 'load', onLoad, { capture: true });
onMounted(() => setTimeout(tellMade, LATEST_MILLISECONDS));
/** Not every browser says when it has nothing to do. */
function whenIdle(then: () => void): void {
  if ('requestIdleCallback' in window) requestIdleCallback(then, { timeout: IDLE_MILLISECONDS });
  else setTimeout(then, IDLE_MILLISECONDS);
}
watch(isMade, () => whenIdle(() => (hasBeside.value = true)));
</script>

<template>
  <ConfigProvider :theme="THEME" component-size="small" :wave="{ disabled: true }">
    <!-- Another effect is another bench. -->
    <RouterView v-slot="{ Component, route }"><component :is="Component" :key="route.path" /></RouterView>
    <AppBeside v-if="hasBeside" />
  </ConfigProvider>
</template>
