<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { ownerOf } from '@jinx/core/document';
import type { ChapterName } from '@jinx/core/editing';
import { computed, nextTick, ref, watch } from 'vue';
import { openGuide } from '../guide/useGuide';
import { isTouring } from '../guide/tour/useTour';
import { useEffectStore } from '../stores/effect';
import EffectPage from './EffectPage.vue';
import GroupPage from './GroupPage.vue';
import PixelPage from './reading/PixelPage.vue';
import ProbePage from './reading/ProbePage.vue';
import TextField from './chips/TextField.vue';
import { CHAPTERS, chapterTitle } from './chapters/useChapterClip';
import { OF_OWNER, PARTS } from './chapters/parts';
import { useAnchors } from './chapters/useAnchors';
import SizeWords from './stage/SizeWords.vue';
import MarkBar from './chapters/MarkBar.vue';
import { useChipActs } from './chapters/useChipActs';

/** The chosen layer's six chapters, one below the other on one page; on wide windows in two columns. */
const store = useEffectStore();
/** The chapters of each column. */
const COLUMNS: readonly (readonly ChapterName[])[] = [CHAPTERS.slice(0, 3), CHAPTERS.slice(3)];
const layer = computed(() => store.chosen);
const page = ref<HTMLElement>();
const { current, goTo, keepPlace } = useAnchors(page);
useChipActs(page);

/** A layer that follows another has no source, births and motion of its own. */
const followedId = computed(() => (store.effect && layer.value ? ownerOf(store.effect, store.chosenId) : ''));
const followed = computed(() =>
  followedId.value === store.chosenId ? null : (store.effect?.layers.byId[followedId.value] ?? null),
);
const isShown = (chapter: ChapterName) => !followed.value || !OF_OWNER.has(chapter);

watch(
  () => store.lead,
  async (lead) => {
    if (!lead) return;
    await nextTick();
    goTo(lead.chapter, lead.chip, lead.label);
  },
);
watch(() => store.chosenId, keepPlace, { flush: 'pre' });

/** Names of the layers that are edited along. */
const beside = computed(() => store.chosenIds.slice(1).map((id) => store.effect!.layers.byId[id]!.name));

function rename(text: string): void {
  const name = text.trim().slice(0, 80);
  if (name) store.changeLayer('rename a layer', (target) => (target.name = name));
}
</script>

<template>
  <aside class="chapters" data-guide="bench#chapters" aria-label="What is chosen">
    <EffectPage v-if="store.page === 'effect'" />
    <ProbePage v-else-if="store.page === 'probe'" />
    <PixelPage v-else-if="store.page === 'pixel'" />
    <GroupPage v-else-if="store.groupId" />
    <template v-else-if="layer">
      <TextField
        :key="store.chosenId"
        class="page-name"
        :value="layer.name"
        aria-label="layer name"
        maxlength="80"
        @commit="rename"
      />
      <SizeWords />
      <p v-if="beside.length" class="beside">
        and {{ beside.join(', ') }}: what is set here is set for all of them, but for links and hits, which are
        {{ layer.name }}’s alone.
        <Button type="link" @click="store.choose([store.chosenId])">Only this one</Button>
      </p>
      <nav class="anchors" aria-label="Chapters">
        <Button
          v-for="chapter in CHAPTERS"
          :key="chapter"
          type="text"
          :class="{ on: current === chapter }"
          :aria-current="current === chapter ? 'true' : undefined"
          @click="goTo(chapter)"
        >
          {{ chapterTitle(chapter) }}
        </Button>
      </nav>
      <div ref="page" class="page" tabindex="-1">
        <div v-for="(chapters, n) in COLUMNS" :key="n" class="column">
          <section
            v-if="n === 0 && followed"
            data-chapter="source births motion"
            aria-label="Source, births and motion"
          >
            <p class="quiet">
              Source, births and motion are those of {{ followed.name }}.
              <Button type="link" @click="store.chosenId = followedId"> Go to {{ followed.name }} </Button>
            </p>
          </section>
          <template v-for="chapter in chapters" :key="`${chapter} ${store.chosenId}`">
            <section v-if="isShown(chapter)" :data-chapter="chapter" :aria-label="chapterTitle(chapter)">
              <component :is="PARTS[chapter]" />
            </section>
          </template>
        </div>
      </div>
      <MarkBar />
    </template>
    <p v-else class="quiet page">
      No layer yet. Add one below: it starts as plain soft dots, so that birth and motion can be judged before any
      picture is chosen, or as something ready, such as a flame, sparks or a mark on the ground.
      <Button type="link" @click="isTouring = true">Show me, in five steps</Button>
      <Button type="link" @click="openGuide('first-ten-minutes')">The first ten minutes</Button>
    </p>
  </aside>
</template>

<style scoped>
.chapters {
  container: chapters / inline-size;
  background: #161617;
  padding: 10px 0 0 14px;
  overflow: hidden;
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}
.chapters :deep(.page-name) {
  background: none;
  border: 0;
  border-bottom: 1px solid transparent;
  font-size: 16px;
  font-weight: 650;
  padding: 0 0 2px;
  margin: 0 14px 4px 0;
}
.beside {
  margin: -2px 14px 6px 0;
  font-size: 12.5px;
  color: var(--soft);
}
.chapters :deep(input.page-name:hover) {
  border-bottom-color: var(--rule);
}
.anchors {
  display: flex;
  gap: 10px;
  margin-right: 14px;
  border-bottom: 1px solid var(--rule);
}
.anchors .ant-btn {
  padding: 4px 0 6px;
  border-radius: 0;
}
.anchors .on {
  box-shadow: inset 0 -2px 0 var(--accent);
}
.chapters :deep(.page) {
  position: relative;
  overflow: hidden auto;
  flex: 1;
  line-height: 27px;
  padding: 8px 14px 40px 0;
}
.page:focus {
  outline: none;
}
.page > .column > section + section,
.column + .column {
  border-top: 1px solid var(--rule);
  padding-top: 5px;
  margin-top: 8px;
}
.chapters :deep(.page p) {
  margin: 0 0 6px;
}
.chapters :deep(.page h3) {
  font-size: 12.5px;
  font-weight: 500;
  color: var(--dim);
  margin: 8px 0 0;
}
.chapters :deep(.page p.quiet) {
  line-height: 20px;
  font-size: 13px;
}
@container chapters (min-width: 640px) {
  .page:has(> .column) {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    column-gap: 28px;
    align-content: start;
  }
  .column + .column {
    border-top: 0;
    padding-top: 0;
    margin-top: 0;
  }
}
</style>
