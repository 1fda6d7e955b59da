<script setup lang="ts">
import { message } from 'ant-design-vue';
import { useRouter } from 'vue-router';
import { ApiError } from '../api';
import { useSavingStore } from '../stores/saving';

/** What to do when an effect was changed elsewhere: both are kept, and nothing is chosen for the artist. */
const saving = useSavingStore();
const router = useRouter();
async function keepMine(): Promise<void> {
  try {
    await router.push(`/effects/${await saving.keepMineAsCopy()}`);
    window.location.reload();
  } catch (error) {
    if (error instanceof ApiError) void message.error(error.message);
  }
}
</script>

<template>
  <div v-if="saving.theirs" class="notice" role="alert">
    <p>This effect was changed elsewhere since you opened it. Both are kept.</p>
    <button type="button" class="primary" @click="keepMine">Keep mine as a copy</button>
    <button type="button" class="plain act" @click="saving.takeTheirs()">Go on with theirs</button>
  </div>
</template>

<style scoped>
.notice {
  position: fixed;
  top: 46px;
  left: 50%;
  transform: translateX(-50%);
  z-index: 40;
  background: #232326;
  border: 1px solid var(--warn);
  border-radius: 4px;
  padding: 8px 14px;
  display: flex;
  gap: 12px;
  align-items: center;
}
.notice p {
  margin: 0;
}
</style>
