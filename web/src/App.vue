<script setup lang="ts">
import { ConfigProvider } from 'ant-design-vue';
import { THEME } from './theme';
</script>

<template>
  <ConfigProvider :theme="THEME">
    <!-- Another effect is another bench. -->
    <RouterView v-slot="{ Component, route }"><component :is="Component" :key="route.path" /></RouterView>
  </ConfigProvider>
</template>
