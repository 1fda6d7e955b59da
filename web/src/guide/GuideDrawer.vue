<script setup lang="ts">
import { ExportOutlined } from '@ant-design/icons-vue';
import { Button, Drawer } from 'ant-design-vue';
import { computed, ref, watch } from 'vue';
import ChoiceChip from '../bench/chips/ChoiceChip.vue';
import { closeGuide, guide, openGuide } from './useGuide';
import GuideText from './GuideText.vue';
import { CHOICES, pageOf } from './pages';

/** The guide beside what is worked on: nothing is covered but a part of the picture, and everything can be used meanwhile. */
const WIDTH = 420;
const page = computed(() => pageOf(guide.value?.page ?? ''));
const aside = ref(0);
watch(
  guide,
  (now, before) => {
    if (!now || before) return;
    const chapters = document.querySelector('[data-guide="bench#chapters"]');
    aside.value = chapters ? window.innerWidth - chapters.getBoundingClientRect().left : 0;
  },
  { immediate: true },
);
</script>

<template>
  <Drawer
    :open="guide !== null"
    :mask="false"
    :width="WIDTH"
    :push="false"
    placement="right"
    root-class-name="guide"
    :root-style="{ right: `${aside}px` }"
    @close="closeGuide"
  >
    <template #title>
      <ChoiceChip :value="page.id" :choices="CHOICES" label="Page of the guide" @choose="openGuide" />
    </template>
    <template #extra>
      <Button type="text" :href="`/help/${page.id}`" target="_blank" title="Open the guide in a tab of its own">
        <ExportOutlined />
      </Button>
    </template>
    <section v-if="guide" aria-label="Guide">
      <GuideText :page="page" :anchor="guide.anchor" @go="openGuide" />
    </section>
  </Drawer>
</template>

<style>
.guide .ant-drawer-header {
  padding: 8px 12px;
}
.guide .ant-drawer-body {
  padding: 16px 18px 40px;
}
</style>
