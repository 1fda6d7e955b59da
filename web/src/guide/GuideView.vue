<script setup lang="ts">
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import HomeTop from '../home/HomeTop.vue';
import GuideText from './GuideText.vue';
import { CHOICES, pageOf } from './pages';

/** The guide as a page of its own. */
const props = defineProps<{ page: string | string[] }>();
const route = useRoute();
const router = useRouter();
const page = computed(() => pageOf([props.page].flat().join('/')));
/** Each group is named above its first page. */
const LISTED = CHOICES.map((one, n) => ({
  ...one,
  group: one.group === CHOICES[n - 1]?.group ? undefined : one.group,
}));
const go = (address: string) => void router.push(`/help/${address}`);
</script>

<template>
  <HomeTop><RouterLink to="/" class="quiet">Projects</RouterLink></HomeTop>
  <div class="guide-view">
    <nav aria-label="Pages of the guide">
      <template v-for="one in LISTED" :key="one.value">
        <p v-if="one.group" class="group">{{ one.group }}</p>
        <RouterLink
          :to="`/help/${one.value}`"
          :class="{ on: one.value === page.id }"
          :aria-current="one.value === page.id ? 'page' : undefined"
          >{{ one.text }}</RouterLink
        >
      </template>
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
nav a {
  display: block;
  padding: 4px 10px;
  border-radius: 4px;
  color: var(--soft);
}
nav a:hover {
  color: var(--ink);
}
nav a.on {
  background: var(--chip);
  color: var(--accent);
}
nav .group {
  margin: 10px 10px 2px;
  font-size: 12.5px;
  color: var(--dim);
}
nav {
  position: sticky;
  top: 16px;
  align-self: start;
  max-height: calc(100vh - 40px);
  overflow: auto;
}
</style>
