<script setup lang="ts">
import { Input } from 'ant-design-vue';
import { computed, ref } from 'vue';
import { words } from './words';

/** Our words beside the trade's others, to be found by either. */
const all = words();
const find = ref('');
const shown = computed(() => {
  const sought = find.value.trim().toLowerCase();
  return all.filter(({ ours, others }) => [ours, ...others].some((word) => word.toLowerCase().includes(sought)));
});
</script>

<template>
  <h1>Words, and what others call them</h1>
  <p>What Jinx calls something, and what people of the trade also call it. The box finds it by either.</p>
  <Input
    v-model:value="find"
    type="search"
    placeholder="A word of yours"
    aria-label="A word of yours"
    allow-clear
    :maxlength="60"
  />
  <table>
    <thead>
      <tr>
        <th scope="col">Here</th>
        <th scope="col">Elsewhere</th>
        <th scope="col">What it is</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(word, n) in shown" :key="n">
        <td>{{ word.ours }}</td>
        <td>{{ word.others.join(', ') }}</td>
        <td class="quiet">{{ word.where }}</td>
      </tr>
    </tbody>
  </table>
  <p v-if="shown.length === 0" class="quiet" role="status">Nothing is called so: try another word of the trade.</p>
</template>

<style scoped>
table {
  margin-top: 10px;
}
</style>
