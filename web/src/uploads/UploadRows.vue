<script setup lang="ts">
import { CloseOutlined } from '@ant-design/icons-vue';
import { Button, Progress } from 'ant-design-vue';
import { sizeWords } from '../parcels/sizes';
import { dismiss, uploads, type Upload } from './uploads';

/** Files on their way into a project, each with its progress and a way to give it up. */
const words = ({ state, sent, problem, bytes }: Upload): string =>
  ({
    waiting: `waits its turn, ${sizeWords(bytes)}`,
    sending: `${Math.round(100 * sent)}% of ${sizeWords(bytes)} sent`,
    reading: 'sent; it is looked through',
    done: 'is here',
    failed: problem,
  })[state];
const isOver = ({ state }: Upload) => state === 'failed' || state === 'done';
</script>

<template>
  <ul v-if="uploads.length > 0" class="uploads" aria-label="Files that are brought in">
    <li v-for="one in uploads" :key="one.id" :class="one.state">
      <span class="name">{{ one.name }}</span>
      <Button
        type="text"
        :aria-label="isOver(one) ? `Dismiss ${one.name}` : `Cancel ${one.name}`"
        :title="isOver(one) ? 'Dismiss' : 'Do not bring it in'"
        @click="isOver(one) ? dismiss(one.id) : one.cancel()"
      >
        <CloseOutlined />
      </Button>
      <Progress
        v-if="one.state !== 'failed'"
        class="bar"
        :percent="Math.round(100 * one.sent)"
        :show-info="false"
        :status="one.state === 'reading' ? 'active' : 'normal'"
        size="small"
        :aria-label="`Sending ${one.name}`"
      />
      <span class="state" :role="one.state === 'failed' ? 'alert' : 'status'">{{ words(one) }}</span>
    </li>
  </ul>
</template>

<style scoped>
.uploads {
  position: fixed;
  right: 14px;
  bottom: 14px;
  z-index: 1050;
  width: 300px;
  max-height: 60vh;
  overflow: auto;
  margin: 0;
  padding: 4px 12px;
  list-style: none;
  background: #232326;
  border: 1px solid #434347;
  border-radius: 4px;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  padding: 5px 0;
}
li + li {
  border-top: 1px solid var(--rule);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.bar,
.state {
  grid-column: 1 / -1;
}
.bar {
  margin: 0;
  line-height: 8px;
}
.state {
  font-size: 12.5px;
  color: var(--soft);
}
.failed .state {
  color: var(--warn);
}
</style>
