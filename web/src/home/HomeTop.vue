<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { api, ApiError } from '../api';
import { openGuide } from '../guide/useGuide';

const router = useRouter();
const name = ref<string | null>(null);
onMounted(async () => {
  try {
    ({ name: name.value } = await api.session());
  } catch (error) {
    // Without an answer nobody's name is shown; the page tells it with what it asks for itself.
    if (!(error instanceof ApiError)) throw error;
  }
});
async function signOut(): Promise<void> {
  await api.signOut();
  await router.push('/sign-in');
}
</script>

<template>
  <header class="top">
    <RouterLink to="/" class="mark">Jinx</RouterLink>
    <slot></slot>
    <span class="space"></span>
    <Button type="link" title="The guide (F1)" @click="openGuide('first-ten-minutes')">Help</Button>
    <template v-if="name">
      <span class="quiet">{{ name }}</span>
      <Button type="text" @click="signOut">Sign out</Button>
    </template>
  </header>
</template>

<style scoped>
.top {
  height: 38px;
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 0 14px;
  border-bottom: 1px solid var(--rule);
}
.mark {
  font-weight: 700;
  color: var(--ink);
}
.space {
  flex: 1;
}
</style>
