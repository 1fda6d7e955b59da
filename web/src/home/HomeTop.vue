<template>
  <header class="top">
    <RouterLink to="/" class="mark">Jinx</RouterLink>
    <slot></slot>
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
</style>
