<script setup lang="ts">
import { HistoryOutlined, InboxOutlined, RedoOutlined, UndoOutlined } from '@ant-design/icons-vue';
import { Button, message } from 'ant-design-vue';
import { inject, ref } from 'vue';
import type { View } from '@jinx/player/scene';
import type { EffectSummary, Present } from '../api';
import type { ToldFinding } from '../engine/checksWorker';
import { openGuide } from '../guide/useGuide';
import { isTouring } from '../guide/tour/useTour';
import { useEffectStore } from '../stores/effect';
import { useSavingStore } from '../stores/saving';
import { tell } from '../tell';
import { injectCommands, useCommands } from './commands/registry';
import { ENGINE, type Below } from './bench';
import Box from './box/Box.vue';
import MenuButton from './chips/MenuButton.vue';
import { FilmDialog, HandOver } from './late';
import KeysList from './KeysList.vue';
import { useSavingWords } from './savingWords';
import TextField from './chips/TextField.vue';

const props = defineProps<{
  projectName: string;
  below: Below;
  others: readonly Present[];
  view: View;
  findings: readonly ToldFinding[];
  effects: readonly EffectSummary[];
}>();
const emit = defineEmits<{ 'update:below': [below: Below]; lead: [finding: ToldFinding] }>();
const READ = [
  { value: 'living', text: 'Living', help: 'All the living of the chosen layer, as a table' },
  { value: 'time', text: 'Over time', help: 'Living, births and cost along the effect’s time' },
  { value: 'words', text: 'In words', help: 'Everything that is set, on one page' },
];
const COMPARE = [
  { value: 'compared', text: 'With another', help: 'What is not the same in another effect, in words and pictures' },
  { value: 'sheet', text: 'Instants', help: 'Many instants of this effect at once' },
];
const KEPT = [
  {
    value: 'history',
    text: 'History',
    help: 'what was done since it was opened, and how it was before',
    icon: HistoryOutlined,
  },
  { value: 'tray', text: 'Tray', help: 'states that were put by with T', icon: InboxOutlined },
] as const;
const HELP = [
  {
    value: 'tour',
    text: 'Show me, in five steps',
    help: 'A tour to the first effect, which can be left at any time',
  },
  { value: 'first-ten-minutes', text: 'The first ten minutes' },
  { value: 'bench', text: 'The bench' },
  { value: 'findings', text: 'Findings and their remedies' },
  { value: 'words', text: 'Words, and what others call them' },
  { value: 'settings', text: 'All settings' },
  { value: 'keys', text: 'Keys', help: 'Every key of the bench (?)' },
];
const commands = injectCommands();
function help(chosen: string): void {
  if (chosen === 'tour') isTouring.value = true;
  else if (chosen === 'keys') commands.run('keys.list');
  else openGuide(chosen);
}
const PAGES = ['rulers', ...[...READ, ...COMPARE, ...KEPT].map(({ value }) => value)] as Below[];
const store = useEffectStore();
const saving = useSavingStore();
const { word, isBad } = useSavingWords();
function rename(text: string): void {
  const name = text.trim().slice(0, 80);
  if (name) store.change('rename the effect', (draft) => (draft.name = name));
}
/** Who else has it open; without names, how many windows. */
function othersWords(others: readonly Present[]): string {
  const names = [...new Set(others.map(({ name }) => name).filter(Boolean))];
  if (names.length > 0) return `Also here: ${names.join(', ')}`;
  return others.length === 1 ? 'Also in another window' : `Also in ${others.length} windows`;
}
useCommands({
  ...Object.fromEntries(PAGES.map((page) => [`page.${page}`, () => emit('update:below', page)])),
  'effect.export': () => void give(),
});
/** Opens a page below the picture; pressed again it gives the rulers back. */
const turn = (page: Below) => emit('update:below', page === props.below ? 'rulers' : page);
const isGiving = ref(false);
const isFilming = ref(false);
const engine = inject(ENGINE)!;
/** What plays would take time from what is drawn for pictures. */
function film(): void {
  engine.playback.pause();
  [isGiving.value, isFilming.value] = [false, true];
}
/** Saves first, so that what is handed over is what is seen. */
async function give(): Promise<void> {
  try {
    if (await saving.settle()) isGiving.value = true;
    else void message.warning(`Nothing was handed over: the effect is not saved. ${saving.sentence}`, 6);
  } catch (error) {
    tell(error);
  }
}
</script>

<template>
  <header class="top" data-guide="bench#handing-over">
    <RouterLink to="/" class="mark">Jinx</RouterLink>
    <nav class="where" aria-label="Where">
      <RouterLink v-if="store.projectId" :to="`/projects/${store.projectId}`">{{ projectName }}</RouterLink>
      <span class="quiet"> / </span>
      <TextField
        v-if="store.effect"
        class="name"
        :value="store.effect.name"
        aria-label="effect name"
        :maxlength="80"
        :style="{ width: `${Math.max(8, store.effect.name.length) + 2}ch` }"
        @commit="rename"
      />
    </nav>
    <span class="space"></span>
    <Box v-if="store.effect" :findings="findings" :effects="effects" @lead="emit('lead', $event)" />
    <span class="space"></span>
    <span
      v-if="others.length"
      class="others"
      role="status"
      data-others
      title="What you and they change is merged; where you change the same thing, you are asked"
      >{{ othersWords(others) }}</span
    >
    <span class="state" :class="{ bad: isBad }" role="status" data-saving :data-state="saving.state">{{ word }}</span>
    <Button
      type="text"
      aria-label="Undo"
      :disabled="!store.undoLabel"
      :title="store.undoLabel ? `Undo: ${store.undoLabel} (Ctrl Z)` : 'Nothing to undo'"
      @click="store.undo()"
    >
      <UndoOutlined />
    </Button>
    <Button
      type="text"
      aria-label="Redo"
      :disabled="!store.redoLabel"
      :title="store.redoLabel ? `Redo: ${store.redoLabel} (Ctrl Shift Z)` : 'Nothing to redo'"
      @click="store.redo()"
    >
      <RedoOutlined />
    </Button>
    <Button
      v-for="{ value, text, help, icon } in KEPT"
      :key="value"
      type="text"
      :class="{ on: below === value }"
      :aria-label="text"
      :aria-pressed="below === value"
      :title="`${text}: ${help}`"
      @click="turn(value)"
    >
      <component :is="icon" />
    </Button>
    <KeysList />
    <Button
      v-if="below !== 'rulers'"
      type="link"
      title="Layers along the effect’s time and a particle’s age"
      @click="turn('rulers')"
      >Rulers</Button
    >
    <MenuButton
      label="Read"
      data-guide="bench#reading"
      :choices="READ"
      title="Pages that say what is set, what lives and what it costs"
      @choose="turn($event as Below)"
    />
    <MenuButton
      label="Compare"
      data-guide="bench#comparing"
      :choices="COMPARE"
      title="With other effects, states and instants"
      @choose="turn($event as Below)"
    />
    <MenuButton label="Help" :choices="HELP" title="The guide (F1), the tour and the keys" @choose="help" />
    <Button type="primary" title="Everything this effect uses, in one parcel" @click="give"> Hand over </Button>
    <HandOver
      v-if="isGiving && store.projectId"
      :project-id="store.projectId"
      :effect="store.id"
      @close="isGiving = false"
      @film="film"
    />
    <FilmDialog
      v-if="isFilming && store.projectId && store.effect"
      :project-id="store.projectId"
      :effect-id="store.id"
      :effect="store.effect"
      :view="view"
      @close="isFilming = false"
    />
  </header>
</template>

<style scoped>
.top {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 14px;
  border-bottom: 1px solid var(--rule);
}
.mark {
  font-weight: 700;
  color: var(--ink);
}
.where a {
  color: var(--soft);
}
.where a:hover {
  color: var(--ink);
}
.name {
  background: none;
  border: 0;
  padding: 2px;
}
.name:hover,
.name:focus {
  background: var(--chip);
  border-radius: 3px;
}
.space {
  flex: 1;
}
.top > * {
  white-space: nowrap;
  flex-shrink: 0;
}
.top > .state,
.top > .others {
  flex-shrink: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
}
.top > .others {
  flex-shrink: 6;
}
/* It says how long and why: it takes a second line before any of it is cut. */
.top > .state {
  white-space: normal;
  flex-basis: 230px;
  line-height: 1.15;
  max-height: 2.3em;
  text-align: right;
}
.state {
  color: var(--soft);
}
.others {
  color: var(--accent);
}
.bad {
  color: var(--warn);
}
.top :deep(.ant-btn-link) {
  color: var(--ink);
}
</style>
