<script setup lang="ts">
import { ConfigProvider } from 'ant-design-vue';
import { THEME } from './theme';
</script>

<template>
  <ConfigProvider :theme="THEME">
    <RouterView />
  </ConfigProvider>
</template>
