<script setup lang="ts">
import { ConfigProvider, message } from 'ant-design-vue';
import { defineAsyncComponent, onMounted } from 'vue';
import { sendAllLeftBehind } from './keeping/leftBehind';
import { outbox } from './keeping/outbox';
import { guide, useGuideKey } from './guide/useGuide';
import HelpTip from './help/HelpTip.vue';
import PickList from './bench/pick/PickList.vue';
import UploadRows from './uploads/UploadRows.vue';
import { THEME } from './theme';

const UNREADABLE =
  'Unsaved work of a closed window could not be read. It is kept in this browser under “jinx unreadable”; the rest is whole.';

/** It is fetched when it is first asked for. */
const GuideDrawer = defineAsyncComponent(() => import('./guide/GuideDrawer.vue'));
useGuideKey();

/** What closed windows could not save is sent as soon as Jinx is opened again, whatever is looked at. */
onMounted(async () => {
  const names = await sendAllLeftBehind().catch(() => []);
  if (outbox.unreadable > 0) void message.warning(UNREADABLE, 12);
  if (names.length > 0) void message.success(`Saved now, from a window that was closed: ${names.join(', ')}.`, 6);
});
</script>

<template>
  <ConfigProvider :theme="THEME" component-size="small" :wave="{ disabled: true }">
    <!-- Another effect is another bench. -->
    <RouterView v-slot="{ Component, route }"><component :is="Component" :key="route.path" /></RouterView>
    <PickList />
    <UploadRows />
    <GuideDrawer v-if="guide" />
    <HelpTip />
  </ConfigProvider>
</template>
