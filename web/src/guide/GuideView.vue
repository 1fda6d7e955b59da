<script setup lang="ts">
import { Menu } from 'ant-design-vue';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import HomeTop from '../home/HomeTop.vue';
import GuideText from './GuideText.vue';
import { menuOf, pageOf } from './pages';

/** The guide as a page of its own. */
const props = defineProps<{ page: string | string[] }>();
const route = useRoute();
const router = useRouter();
const page = computed(() => pageOf([props.page].flat().join('/')));
const go = (address: string) => void router.push(`/help/${address}`);
</script>

<template>
  <HomeTop><RouterLink to="/" class="quiet">Projects</RouterLink></HomeTop>
  <div class="guide-view">
    <nav aria-label="Pages of the guide">
      <Menu
        mode="inline"
        :items="menuOf()"
        :selected-keys="[page.id]"
        :inline-indent="12"
        @click="({ key }) => go(String(key))"
      />
    </nav>
    <main><GuideText :page="page" :anchor="route.hash.slice(1)" @go="go" /></main>
  </div>
</template>

<style scoped>
.guide-view {
  display: grid;
  grid-template-columns: 260px minmax(0, 760px);
  gap: 36px;
  padding: 22px 28px 60px;
}
nav :deep(.ant-menu) {
  border-inline-end: 0 !important;
  background: none;
}
nav {
  position: sticky;
  top: 16px;
  align-self: start;
  max-height: calc(100vh - 40px);
  overflow: auto;
}
</style>
