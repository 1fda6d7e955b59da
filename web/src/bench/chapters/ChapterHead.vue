<script setup lang="ts">
import type { ChapterName } from '@jinx/core/editing';
import { chapterTitle, useChapterClip } from './useChapterClip';

/** A chapter's title, what can be added to it, and copying it as a whole. */
defineProps<{ chapter: ChapterName }>();
const { copy, paste, pastable } = useChapterClip();
</script>

<template>
  <div class="chapter-head">
    <h2>{{ chapterTitle(chapter) }}</h2>
    <span class="whole">
      <button
        type="button"
        class="plain"
        :aria-label="`Copy ${chapterTitle(chapter)} of this layer`"
        :title="`Copy all of ${chapterTitle(chapter)}, for other layers`"
        @click="copy(chapter)"
      >
        copy
      </button>
      <button
        v-if="pastable?.chapter === chapter"
        type="button"
        class="plain act"
        :aria-label="pastable.text"
        :title="pastable.text"
        @click="paste"
      >
        paste
      </button>
    </span>
    <span class="adds"><slot></slot></span>
  </div>
</template>

<style scoped>
.chapter-head {
  display: flex;
  align-items: baseline;
  gap: 6px;
  min-height: 24px;
}
h2 {
  margin: 0;
  font-size: 13px;
  font-weight: 600;
  color: var(--soft);
}
.whole {
  font-size: 12.5px;
  opacity: 0;
}
.chapter-head:hover .whole,
.chapter-head:focus-within .whole {
  opacity: 1;
}
.adds {
  margin-left: auto;
}
</style>
