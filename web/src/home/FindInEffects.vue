<script setup lang="ts">
import { Button, Input } from 'ant-design-vue';
import { ref, shallowRef } from 'vue';
import { api, ApiError, type FoundIn } from '../api';

/** Where something is used: a picture, a mesh, a look, a setting or a word, across all effects of a project. */
const props = defineProps<{ projectId: string }>();
const text = ref('');
const sought = ref('');
const found = shallowRef<readonly FoundIn[]>([]);
const problem = ref('');
let asked = 0;
async function look(): Promise<void> {
  const mine = ++asked;
  problem.value = '';
  try {
    const answer = text.value.trim() === '' ? [] : await api.search(props.projectId, text.value);
    // A later question's answer is not overwritten by an earlier one's.
    if (mine === asked) [found.value, sought.value] = [answer, text.value.trim()];
  } catch (error) {
    if (!(error instanceof ApiError)) throw error;
    problem.value = error.message;
  }
}
</script>

<template>
  <section>
    <h2>Where used</h2>
    <form class="new" role="search" @submit.prevent="look">
      <Input
        v-model:value="text"
        placeholder="A picture, mesh, look, setting or word"
        aria-label="what to look for in all effects"
        :maxlength="80"
        allow-clear
      />
      <Button html-type="submit" type="link">Find</Button>
    </form>
    <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
    <p v-else-if="sought && found.length === 0" class="quiet" role="status">
      “{{ sought }}” is used in no effect of this project.
    </p>
    <ul class="found" aria-label="Where it is used">
      <li v-for="effect in found" :key="effect.id">
        <RouterLink :to="`/effects/${effect.id}`">{{ effect.name }}</RouterLink>
        <p v-for="line in effect.lines" :key="line.id" class="line">
          <span class="quiet">{{ line.heading }}, {{ line.name }}:</span> {{ line.value }}
        </p>
        <p v-if="effect.more" class="quiet line">and {{ effect.more }} more</p>
      </li>
    </ul>
  </section>
</template>

<style scoped src="./home.css"></style>
<style scoped>
.found {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
}
.found li {
  margin-bottom: 10px;
}
.new .ant-input-affix-wrapper {
  width: 320px;
}
.line {
  margin: 1px 0 0 12px;
  font-size: 13px;
  overflow-wrap: anywhere;
}
.bad {
  color: var(--warn);
}
</style>
