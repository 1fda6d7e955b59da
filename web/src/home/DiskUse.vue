<script setup lang="ts">
import { Progress, Tooltip } from 'ant-design-vue';
import { computed } from 'vue';

/** The disk that a project takes, of what it may. */
const props = defineProps<{ bytes: number; mostBytes: number }>();
const MEGABYTE = 1024 ** 2;
const words = (bytes: number): string =>
  bytes < 1000 * MEGABYTE ? `${Math.ceil(bytes / MEGABYTE)} MB` : `${(bytes / 1024 / MEGABYTE).toFixed(1)} GB`;
const percent = computed(() => Math.min(100, (100 * props.bytes) / props.mostBytes));
</script>

<template>
  <Tooltip
    title="Effects with their history, figures and pictures. What is deleted counts until it is forgotten, 30 days later."
  >
    <p class="disk" tabindex="0">
      <span class="quiet number">{{ words(bytes) }} of {{ words(mostBytes) }} on disk</span>
      <Progress
        class="bar"
        :percent="percent"
        :show-info="false"
        :status="percent > 90 ? 'exception' : 'normal'"
        size="small"
        aria-hidden="true"
      />
    </p>
  </Tooltip>
</template>

<style scoped>
.disk {
  display: inline-flex;
  align-items: center;
  gap: 12px;
  margin: 0 0 8px;
}
.bar {
  width: 140px;
  margin: 0;
}
</style>
