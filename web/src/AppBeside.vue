<script setup lang="ts">
import { message } from 'ant-design-vue';
import { defineAsyncComponent, onMounted } from 'vue';
import PickList from './bench/pick/PickList.vue';
import { useGuideKey } from './guide/guideKey';
import { guide } from './guide/useGuide';
import HelpTip from './help/HelpTip.vue';
import { sendAllLeftBehind } from './keeping/leftBehind';
import { outbox } from './keeping/outbox';
import UploadRows from './uploads/UploadRows.vue';

/** What every page has beside itself, and needs only once it is there. */
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
  <PickList />
  <UploadRows />
  <GuideDrawer v-if="guide" />
  <HelpTip />
</template>
