<script setup lang="ts">
import { ConfigProvider, message } from 'ant-design-vue';
import { onMounted } from 'vue';
import { sendAllLeftBehind } from './keeping/leftBehind';
import { THEME } from './theme';

/** What closed windows could not save is sent as soon as Jinx is opened again, whatever is looked at. */
onMounted(async () => {
  const names = await sendAllLeftBehind().catch(() => []);
  if (names.length > 0) void message.success(`Saved now, from a window that was closed: ${names.join(', ')}.`, 6);
});
</script>

<template>
  <ConfigProvider :theme="THEME">
    <!-- Another effect is another bench. -->
    <RouterView v-slot="{ Component, route }"><component :is="Component" :key="route.path" /></RouterView>
  </ConfigProvider>
</template>
