<script setup lang="ts">
import { ownerOf } from '@jinx/core/document';
import { pasteChapter, type ChapterName, type Pasted } from '@jinx/core/editing';
import { message } from 'ant-design-vue';
import { computed } from 'vue';
import { random32, useEffectStore } from '../stores/effect';
import { copiedChapter } from './values/copied';
import EffectPage from './EffectPage.vue';
import GroupPage from './GroupPage.vue';
import MenuButton from './chips/MenuButton.vue';
import { toldOfReferences } from './rulers/useClipboard';
import PixelPage from './reading/PixelPage.vue';
import ProbePage from './reading/ProbePage.vue';
import TextField from './chips/TextField.vue';
import AppearanceChapter from './chapters/AppearanceChapter.vue';
import BirthsChapter from './chapters/BirthsChapter.vue';
import LifeChapter from './chapters/LifeChapter.vue';
import LinksChapter from './chapters/LinksChapter.vue';
import MotionChapter from './chapters/MotionChapter.vue';
import SourceChapter from './chapters/SourceChapter.vue';

const store = useEffectStore();
const CHAPTERS = {
  Source: SourceChapter,
  Births: BirthsChapter,
  Motion: MotionChapter,
  Life: LifeChapter,
  Appearance: AppearanceChapter,
  Links: LinksChapter,
};
type Name = keyof typeof CHAPTERS;
const names = Object.keys(CHAPTERS) as Name[];
const titleOf = (chapter: ChapterName) => names.find((name) => name.toLowerCase() === chapter)!;
const open = computed<Name>({
  get: () => titleOf(store.chapter),
  set: (name) => (store.chapter = name.toLowerCase() as ChapterName),
});
const layer = computed(() => store.chosen);

/** Chapters that only a layer with particles of its own has. */
const OWN: ReadonlySet<Name> = new Set(['Source', 'Births', 'Motion']);
const followedId = computed(() => (store.effect && layer.value ? ownerOf(store.effect, store.chosenId) : ''));
const followed = computed(() =>
  followedId.value === store.chosenId ? null : (store.effect?.layers.byId[followedId.value] ?? null),
);

/** What can be done with the open chapter as a whole. */
const chapterActs = computed(() => {
  const copied = copiedChapter.value;
  const whom = store.chosenIds.length > 1 ? `these ${store.chosenIds.length} layers` : 'this layer';
  return [
    { value: 'copy', text: `copy ${open.value} of this layer` },
    ...(copied ? [{ value: 'paste', text: `give ${whom} ${titleOf(copied.chapter)} of ${copied.layer}` }] : []),
  ];
});
function actOnChapter(value: string): void {
  const chapter = open.value.toLowerCase() as ChapterName;
  if (value === 'copy') {
    const clip = { layers: [store.chosenId], effect: store.effect! };
    copiedChapter.value = { chapter, layer: layer.value!.name, clip };
    return;
  }
  const copied = copiedChapter.value!;
  const to = store.openIds(store.effect!);
  let pasted: Pasted | null = null;
  store.change(`give ${titleOf(copied.chapter)} of ${copied.layer}`, (draft) => {
    pasted = pasteChapter(draft, copied.clip, copied.chapter, to, random32);
  });
  const told = pasted && toldOfReferences(pasted);
  if (told) void message.info(told, 8);
}

/** Names of the layers that are edited along. */
const beside = computed(() => store.chosenIds.slice(1).map((id) => store.effect!.layers.byId[id]!.name));

function rename(text: string): void {
  const name = text.trim().slice(0, 80);
  if (name) store.changeLayer('rename a layer', (target) => (target.name = name));
}
</script>

<template>
  <aside class="chapters" aria-label="What is chosen">
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
      <p v-if="beside.length" class="beside">
        and {{ beside.join(', ') }}: what is set here is set for all of them, but for links and hits, which are
        {{ layer.name }}’s alone.
        <button type="button" class="plain act" @click="store.choose([store.chosenId])">Only this one</button>
      </p>
      <div class="tabs">
        <div class="list" role="tablist">
          <button
            v-for="name in names"
            :key="name"
            type="button"
            role="tab"
            class="plain"
            :class="{ on: open === name }"
            :aria-selected="open === name"
            @click="open = name"
          >
            {{ name }}
          </button>
        </div>
        <span class="whole"><MenuButton label="more" :choices="chapterActs" @choose="actOnChapter" /></span>
      </div>
      <div class="page" role="tabpanel">
        <p v-if="followed && OWN.has(open)">
          These particles are those of {{ followed.name }}: where they are born and how they move is set there.
          <button type="button" class="plain act" @click="store.chosenId = followedId">
            Go to {{ followed.name }}
          </button>
        </p>
        <component :is="CHAPTERS[open]" v-else :key="store.chosenId" />
      </div>
    </template>
    <p v-else class="quiet page">
      No layer yet. Add one below: it starts as plain soft dots, so that birth and motion can be judged before any
      picture is chosen, or as something ready, such as a flame, sparks or a mark on the ground.
    </p>
  </aside>
</template>

<style scoped>
.chapters {
  background: #161617;
  border-left: 1px solid var(--rule);
  padding: 10px 14px 8px;
  overflow: hidden;
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.chapters :deep(.page-name) {
  background: none;
  border: 0;
  border-bottom: 1px solid transparent;
  font-size: 16px;
  font-weight: 650;
  padding: 0 0 2px;
  margin: 0 0 6px;
  width: 100%;
}
.beside {
  margin: -4px 0 6px;
  font-size: 12.5px;
  color: var(--soft);
}
.chapters :deep(input.page-name:hover) {
  border-bottom-color: var(--rule);
}
.tabs {
  display: flex;
  gap: 8px;
  border-bottom: 1px solid var(--rule);
  margin-bottom: 6px;
}
.whole {
  margin-left: auto;
  align-self: center;
}
.list {
  display: flex;
  gap: 8px;
}
.list .plain {
  padding: 4px 0 6px;
}
.list .on {
  box-shadow: inset 0 -2px 0 var(--accent);
}
.chapters :deep(.page) {
  overflow: auto;
  flex: 1;
  line-height: 27px;
  padding-bottom: 40px;
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
</style>
