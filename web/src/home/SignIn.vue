<script setup lang="ts">
import { Button, Input } from 'ant-design-vue';
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, ApiError } from '../api';
import HomeTop from './HomeTop.vue';

/** Where people sign in, they do it here. */
const route = useRoute();
const router = useRouter();
const name = ref('');
const password = ref('');
const problem = ref('');
const isBusy = ref(false);

/** Only to a page of Jinx. */
function back(): string {
  const to = String(route.query['to'] ?? '/');
  return /^\/(?![/\\])/.test(to) ? to : '/';
}
async function signIn(): Promise<void> {
  isBusy.value = true;
  problem.value = '';
  try {
    await api.signIn(name.value.trim(), password.value);
    await router.replace(back());
  } catch (error) {
    if (!(error instanceof ApiError)) throw error;
    problem.value = error.message;
    password.value = '';
  } finally {
    isBusy.value = false;
  }
}
</script>

<template>
  <HomeTop />
  <main class="home">
    <h1>Sign in</h1>
    <p class="quiet">
      What you have not saved is kept in this browser, and is sent once you are in. Whoever runs Jinx here can let you
      in, or give you a new password.
    </p>
    <form class="in" @submit.prevent="signIn">
      <label>Name <Input v-model:value="name" autocomplete="username" :maxlength="80" autofocus /></label>
      <label>
        Password
        <Input v-model:value="password" type="password" autocomplete="current-password" :maxlength="200" />
      </label>
      <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
      <Button html-type="submit" type="primary" :disabled="isBusy || !name.trim() || !password">Sign in</Button>
    </form>
  </main>
</template>

<style scoped src="./home.css"></style>
<style scoped>
.in {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 12px;
  margin-top: 18px;
}
label {
  display: grid;
  grid-template-columns: 90px 260px;
  align-items: baseline;
}
.bad {
  color: var(--warn);
  margin: 0;
}
</style>
