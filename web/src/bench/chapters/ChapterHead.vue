<script setup lang="ts">
import type { ChapterName } from '@jinx/core/editing';
import { Button, message } from 'ant-design-vue';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import MenuButton from '../chips/MenuButton.vue';
import { loosen, LOOSENED, looseIn } from '../values/loosen';
import { chapterTitle, useChapterClip } from './useChapterClip';

/** A chapter's title, what can be added to it, and copying it as a whole. */
const props = defineProps<{ chapter: ChapterName }>();
const { copy, paste, pastable } = useChapterClip();
const store = useEffectStore();
const isLoosenable = computed(() => looseIn(store.effect!, store.chosenId, props.chapter).length > 0);
/** Spreads every single number of the chapter, in all chosen layers, and says each. */
function loosenAll(percent: string): void {
  let said: string[] = [];
  store.changeLayers(`loosen ${chapterTitle(props.chapter)}`, (_, id, draft) => {
    const now = loosen(draft, id, props.chapter, Number(percent) / 100);
    if (id === store.chosenId) said = now;
  });
  if (said.length > 0 && !store.previewed)
    void message.info({ content: `Loosened: ${said.join(', ')}.`, key: 'loosen' }, 8);
}
</script>

<template>
  <div class="chapter-head">
    <h2>{{ chapterTitle(chapter) }}</h2>
    <span class="whole">
      <Button
        type="text"
        :aria-label="`Copy ${chapterTitle(chapter)} of this layer`"
        :title="`Copy all of ${chapterTitle(chapter)}, for other layers`"
        @click="copy(chapter)"
      >
        copy
      </Button>
      <Button
        v-if="pastable?.copied.part.chapter === chapter"
        type="link"
        :aria-label="pastable.text"
        :title="pastable.text"
        @click="paste(pastable.copied)"
      >
        paste
      </Button>
      <MenuButton v-if="isLoosenable" label="loosen…" :choices="LOOSENED" previews @choose="loosenAll" />
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
