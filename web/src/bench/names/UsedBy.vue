<script setup lang="ts">
/** Where something with a name is used. */
defineProps<{ uses: readonly string[] }>();
</script>

<template>
  <details v-if="uses.length > 0" class="uses">
    <summary>used in {{ uses.length === 1 ? 'one place' : `${uses.length} places` }}</summary>
    <ul>
      <li v-for="use in uses" :key="use">{{ use }}</li>
    </ul>
  </details>
  <span v-else class="uses">used nowhere yet</span>
</template>

<style scoped>
.uses {
  display: inline-block;
  font-size: 12.5px;
  color: var(--dim);
}
.uses[open] {
  display: block;
}
summary {
  cursor: pointer;
}
ul {
  margin: 0;
  padding-left: 16px;
}
</style>
