<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue';
import GuideLayers from './GuideLayers.vue';
import { layersOf, withoutLayers } from './layersOf';
import { anchorAmong, headingsOf, isStart, START_PAGES, type GuidePage } from './pages';
import { render } from './render';
import SettingsPage from './SettingsPage.vue';
import WordsPage from './WordsPage.vue';

/** A page of the guide, at one of its headings. */
const props = defineProps<{ page: GuidePage; anchor: string }>();
const emit = defineEmits<{ go: [address: string] }>();
const root = ref<HTMLElement>();
const isOfStart = computed(() => isStart(props.page));
const html = computed(() => render(isOfStart.value ? withoutLayers(props.page.text) : props.page.text));
const picture = computed(() => `/starts/${props.page.id.slice(START_PAGES.length)}.webp`);

const MOST_FRAMES = 30;
const nextFrame = () => new Promise((later) => requestAnimationFrame(later));
/** Comes to the heading that is asked for; another page begins at its top. */
async function come(isOther: boolean): Promise<void> {
  await nextTick();
  // A drawer that opens puts what is in it on the page a little later.
  for (let n = 0; n < MOST_FRAMES && !root.value?.getClientRects().length; n++) await nextFrame();
  const { page, anchor } = props;
  const id = page.kind === 'text' ? anchorAmong(headingsOf(page), anchor) : anchor;
  const at = id ? document.getElementById(id) : null;
  if (at) {
    at.scrollIntoView({ block: 'start' });
    at.setAttribute('tabindex', '-1');
    at.focus({ preventScroll: true });
  } else if (isOther) root.value?.closest('.ant-drawer-body')?.scrollTo({ top: 0 });
}
onMounted(() => void come(false));
watch(
  () => [props.page, props.anchor] as const,
  ([page], [before]) => void come(page !== before),
);
function follow(event: MouseEvent): void {
  const to = (event.target as Element).closest<HTMLElement>('a[data-guide]')?.dataset['guide'];
  if (!to || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  emit('go', to);
}
</script>

<template>
  <article ref="root" class="guide-text" @click="follow">
    <span v-if="isOfStart" class="picture" :style="{ backgroundImage: `url(${picture})` }"></span>
    <!-- eslint-disable-next-line vue/no-v-html -- Our own text, and HTML in it is escaped. -->
    <div v-if="page.kind === 'text'" v-html="html"></div>
    <GuideLayers v-if="isOfStart" :layers="layersOf(page.text)" />
    <SettingsPage v-if="page.kind === 'settings'" />
    <WordsPage v-if="page.kind === 'words'" />
    <p class="foot"><a href="/notices.txt" target="_blank">Licences of what is used here</a></p>
  </article>
</template>

<style>
.guide-text {
  line-height: 1.5;
}
.guide-text h1 {
  font-size: 20px;
  margin: 0 0 8px;
}
.guide-text h2 {
  font-size: 16px;
  margin: 22px 0 4px;
}
.guide-text h2:focus,
.guide-text tr:focus {
  outline: 2px solid var(--accent);
  outline-offset: 3px;
}
.guide-text p,
.guide-text ol,
.guide-text ul {
  margin: 0 0 8px;
}
.guide-text ol,
.guide-text ul {
  padding-left: 22px;
}
.guide-text li {
  margin-bottom: 5px;
}
.guide-text strong {
  font-weight: 650;
}
.guide-text code {
  padding: 0 4px;
  border-radius: 3px;
  background: var(--chip);
}
.guide-text a {
  color: var(--accent);
  text-decoration: underline;
}
.guide-text a.elsewhere {
  color: inherit;
  text-decoration: none;
}
.guide-text .picture {
  display: block;
  aspect-ratio: 8 / 5;
  max-width: 320px;
  margin-bottom: 12px;
  border-radius: 4px;
  background-color: var(--deep);
  background-size: 2400% 100%;
  background-position: 39.13% 0;
}
.guide-text .foot {
  margin-top: 28px;
  font-size: 12.5px;
}
.guide-text table {
  width: 100%;
  border-collapse: collapse;
  font-size: 13px;
}
.guide-text th,
.guide-text td {
  padding: 4px 10px 4px 0;
  border-bottom: 1px solid var(--rule);
  text-align: left;
  vertical-align: top;
}
</style>
