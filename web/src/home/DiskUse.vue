<script setup lang="ts">
import { Progress, Tooltip } from 'ant-design-vue';
import { computed } from 'vue';
import type { DiskUse } from '../api';

/** The disk that a project takes, of what it may. */
const props = defineProps<{ disk: DiskUse }>();
const MEGABYTE = 1024 ** 2;
const words = (bytes: number): string =>
  bytes < 1000 * MEGABYTE
    ? `${Math.ceil(bytes / MEGABYTE)} MB`
    : `${Number((bytes / 1024 / MEGABYTE).toFixed(1))} GB`;
const percent = computed(() => Math.min(100, (100 * props.disk.bytes) / props.disk.mostBytes));
const help = computed(
  () =>
    `Effects with their history, figures and pictures. What is deleted counts until it is forgotten, 30 days later. All projects together take ${words(props.disk.allBytes)} of ${words(props.disk.mostAllBytes)}.`,
);
</script>

<template>
  <Tooltip :title="help" placement="right">
    <p class="disk" tabindex="0" data-disk>
      <span class="quiet number">{{ words(disk.bytes) }} of {{ words(disk.mostBytes) }} on disk</span>
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
