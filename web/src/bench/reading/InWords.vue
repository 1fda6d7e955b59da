<script setup lang="ts">
import { pageOf, sectionsOf, wordsOf } from '@jinx/core/document';
import { pasteWords, type LineLeft, type WordsRead } from '@jinx/core/editing';
import { Button, Input, message, Segmented } from 'ant-design-vue';
import { computed, ref } from 'vue';
import { chapterTitle } from '../chapters/useChapterClip';
import { useSentences } from './useSentences';
import { useEffectStore } from '../../stores/effect';
import { saveText } from '../files';

/** Everything that is set, on one page: looked through, copied, saved. */
const store = useEffectStore();
const sought = ref('');
const WAYS = [
  { value: 'sentences', label: 'In sentences' },
  { value: 'lines', label: 'Line by line' },
];
/** In the sentences of the chapters, or a line for each thing that is set, which can be pasted. */
const way = ref('sentences');
const isInLines = computed(() => way.value === 'lines');
const sentences = useSentences(computed(() => !isInLines.value));
const all = computed(() => wordsOf(store.effect!));
/** What is set for the effect itself has no chapters: it is told line by line. */
const lines = computed(() =>
  isInLines.value ? all.value : all.value.filter(({ heading }) => heading === 'The effect'),
);
const text = computed(() => sought.value.trim().toLowerCase());
const has = (...parts: string[]) => text.value === '' || parts.join(' ').toLowerCase().includes(text.value);
const shown = computed(() => lines.value.filter(({ heading, name, value }) => has(heading, name, value)));
const sections = computed(() => sectionsOf(shown.value));
const told = computed(() =>
  isInLines.value
    ? []
    : sentences.value.flatMap(({ id, name, chapters }) => {
        const found = chapters
          .map(({ chapter, sentences: own }) => ({ chapter, own: own.filter((sentence) => has(name, sentence)) }))
          .filter(({ own }) => own.length > 0);
        return found.length > 0 ? [{ id, name, chapters: found }] : [];
      }),
);
const isNone = computed(() => shown.value.length === 0 && told.value.length === 0);
const page = () => {
  const told = sentencesPage();
  return `${pageOf(store.effect!.name, shown.value)}${told}`;
};
/** The layers' sentences as text, under their names. */
const sentencesPage = () =>
  told.value
    .map(({ name, chapters }) =>
      ['', name, '-'.repeat(name.length), ...chapters.flatMap(({ own }) => own), ''].join('\n'),
    )
    .join('');
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(page());
  void message.info('The page was copied.');
}
/** What is being pasted; null while nothing is. */
const pasted = ref<string | null>(null);
const left = ref<readonly LineLeft[]>([]);
/** Sets what the lines say, in one step of undo, and lists those that could not be set. */
function setPasted(): void {
  let read: WordsRead | null = null;
  const page = pasted.value ?? '';
  store.change('set lines in words', (draft) => {
    read = pasteWords(draft, page, store.chosenId, () => store.newId());
  });
  const { set, left: rest } = read! as WordsRead;
  left.value = rest;
  pasted.value = rest.length > 0 ? rest.map(({ line }) => line).join('\n') : null;
  void message.info(
    `${set.length} ${set.length === 1 ? 'line' : 'lines'} set${rest.length > 0 ? `, ${rest.length} left` : ''}.`,
  );
}
function endPasting(): void {
  pasted.value = null;
  left.value = [];
}
const save = () => saveText(`${store.effect!.name}.txt`, page(), 'text/plain');
</script>

<template>
  <section class="words" aria-label="Everything that is set">
    <div class="bar">
      <Input v-model:value="sought" class="sought" placeholder="Find" aria-label="find in the page" allow-clear />
      <Segmented v-model:value="way" :options="WAYS" aria-label="How it is told" />
      <span v-if="isInLines" class="quiet number">{{ shown.length }} of {{ lines.length }} lines</span>
      <span class="space"></span>
      <Button
        type="link"
        :aria-expanded="pasted !== null"
        title="Lines of such a page, of this effect or another, are set here"
        @click="pasted === null ? (pasted = '') : endPasting()"
      >
        Paste lines…
      </Button>
      <Button type="link" @click="copy">Copy</Button>
      <Button type="link" @click="save">Save as text</Button>
    </div>
    <div v-if="pasted !== null" class="pasting">
      <Input.TextArea
        v-model:value="pasted"
        :auto-size="{ minRows: 3, maxRows: 8 }"
        aria-label="lines to be set"
        placeholder="Paste lines as this page has them, as in “rate: 40/s”. Under a layer’s name they are set there, else on what is chosen."
        @keydown.esc.stop="endPasting"
        @keydown.ctrl.enter="setPasted"
      />
      <div>
        <Button type="link" :disabled="pasted.trim() === ''" @click="setPasted">Set them</Button>
        <Button type="text" @click="endPasting">Cancel</Button>
      </div>
      <ul v-if="left.length > 0" aria-label="Lines that were left">
        <li v-for="({ line, why }, n) in left" :key="n">
          <span class="quiet">{{ line }}:</span> {{ why }}
        </li>
      </ul>
    </div>
    <div class="page" role="region" tabindex="0" aria-label="The page">
      <p v-if="isNone" class="quiet">Nothing that is set has “{{ sought }}” in it.</p>
      <div class="columns">
        <section v-for="{ heading, lines: own } in sections" :key="heading">
          <h3>{{ heading }}</h3>
          <p v-for="line in own" :key="line.id">
            <span class="quiet">{{ line.name }}:</span> {{ line.value }}
          </p>
        </section>
        <section v-for="{ id, name, chapters } in told" :key="id">
          <h3>{{ name }}</h3>
          <template v-for="{ chapter, own } in chapters" :key="chapter">
            <h4>{{ chapterTitle(chapter) }}</h4>
            <p v-for="(sentence, n) in own" :key="n">{{ sentence }}</p>
          </template>
        </section>
      </div>
    </div>
  </section>
</template>

<style scoped>
.words {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: #161617;
}
.bar {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 4px 12px;
  border-bottom: 1px solid var(--rule);
}
.sought {
  width: 180px;
}
.pasting {
  padding: 6px 12px;
  border-bottom: 1px solid var(--rule);
  max-height: 60%;
  overflow-y: auto;
  font-size: 13px;
}
.pasting ul {
  margin: 4px 0 0;
  padding-left: 16px;
}
.space {
  flex: 1;
}
.page {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  padding: 8px 14px;
  font-size: 13px;
}
.columns {
  columns: 400px auto;
  column-gap: 28px;
  column-rule: 1px solid var(--rule);
}
.page p {
  margin: 0 0 2px;
  padding-left: 12px;
  text-indent: -12px;
  overflow-wrap: anywhere;
}
h3 {
  margin: 0 0 4px;
  break-after: avoid;
}
h4 {
  margin: 6px 0 0;
  font-size: 12.5px;
  font-weight: 500;
  color: var(--dim);
  break-after: avoid;
}
section section {
  margin-bottom: 12px;
}
</style>
