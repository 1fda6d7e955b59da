<script setup lang="ts">
import { SearchOutlined } from '@ant-design/icons-vue';
import { onClickOutside } from '@vueuse/core';
import { Button, Input } from 'ant-design-vue';
import { computed, nextTick, ref } from 'vue';
import type { EffectSummary } from '../../api';
import type { ToldFinding } from '../../engine/checksWorker';
import { fetchGuideTargets } from '../../guide/box';
import { useEffectStore } from '../../stores/effect';
import { useCommands } from '../commands/registry';
import type { Suggestion } from './line';
import { useBox } from './useBox';

/** The one box: finds settings, layers, commands and pages by any word, sets what is given a value, adds what is not there. */
const props = defineProps<{ findings: readonly ToldFinding[]; effects: readonly EffectSummary[] }>();
const emit = defineEmits<{ lead: [finding: ToldFinding] }>();
const store = useEffectStore();
const { suggest, ready, goThere, tools } = useBox(
  () => props.findings,
  () => props.effects,
  (finding) => emit('lead', finding),
);
const EXAMPLES = [
  'rate 35',
  'lifetime 0.7-0.9',
  'additive',
  'add vortex',
  'place head 0, 0.2, 0',
  'colour white to teal',
];

const root = ref<HTMLElement>();
const isOpen = ref(false);
/** The part that is being typed. */
const line = ref('');
const at = ref(0);
const problem = ref('');
/** What was carried out since it was opened, in words. */
const done = ref<readonly string[]>([]);
const found = computed((): Suggestion[] => (isOpen.value && line.value.trim() !== '' ? suggest(line.value) : []));
let before: HTMLElement | null = null;
/** Steps of undo there were when it was opened. */
let steps = 0;

async function open(): Promise<void> {
  before = document.activeElement as HTMLElement | null;
  [isOpen.value, line.value, at.value, problem.value, done.value] = [true, '', 0, '', []];
  steps = store.past.length;
  void fetchGuideTargets();
  await nextTick();
  root.value?.querySelector('input')?.focus();
}
function close(): void {
  if (!isOpen.value) return;
  isOpen.value = false;
  store.preview(null);
  store.joinSteps(steps, done.value.join('; ').slice(0, 120));
  goThere();
}
function giveUp(): void {
  close();
  before?.focus();
}
/** Carries out what one part means. Returns whether it could be. */
function carryOut(suggestion: Suggestion | undefined, part: string): boolean {
  store.preview(null);
  problem.value = suggestion ? suggestion.problem : `Nothing is called “${part.trim()}”.`;
  if (!suggestion || problem.value !== '') return false;
  const told = store.told;
  suggestion.run(tools);
  // A locked layer says so itself.
  if (store.told !== told && store.told) problem.value = store.told.sentence;
  else done.value = [...done.value, suggestion.text];
  return problem.value === '';
}
let isBusy = false;
/** Whether Enter was pressed while parts before were still being carried out. */
let isEnding = false;
/** Carries out all parts that are whole, one after another: what is typed meanwhile comes after them. */
async function carryOutWhole(): Promise<void> {
  while (isOpen.value && line.value.includes(';')) {
    const part = line.value.slice(0, line.value.indexOf(';'));
    if (part.trim() !== '') {
      await ready();
      const [first] = suggest(part);
      if (first?.isLike) {
        problem.value = `Nothing is called “${part.trim()}”. Enter takes what is like it: ${first.text}.`;
        line.value = line.value.replace(';', '');
        return;
      }
      if (!carryOut(first, part)) return;
      await nextTick();
    }
    line.value = line.value.slice(line.value.indexOf(';') + 1).trimStart();
  }
}
/** What is typed. A semicolon carries out what stands before it, and goes on with what comes after. */
async function typed(text: string): Promise<void> {
  [line.value, at.value, problem.value] = [text, 0, ''];
  store.preview(null);
  if (isBusy || !text.includes(';')) return;
  isBusy = true;
  await carryOutWhole();
  isBusy = false;
  if (!isEnding) return;
  isEnding = false;
  if (problem.value === '') await take(found.value[0]);
}
function walkTo(to: number): void {
  const count = found.value.length;
  if (count === 0) return;
  at.value = (to + count) % count;
  const suggestion = found.value[at.value]!;
  store.preview(suggestion.previews && suggestion.problem === '' ? () => suggestion.run(tools) : null);
}
async function take(suggestion: Suggestion | undefined): Promise<void> {
  if (isBusy) return void (isEnding = true);
  if (line.value.trim() === '') return giveUp();
  if (line.value.includes(';')) return;
  await ready();
  // What could not be meant before the figures were here may be now.
  if (carryOut(suggestion ?? suggest(line.value)[0], line.value)) close();
}
function keyDown(event: KeyboardEvent): void {
  if (event.key === 'ArrowDown') walkTo(at.value + 1);
  else if (event.key === 'ArrowUp') walkTo(at.value - 1);
  else if (event.key === 'Enter') void take(found.value[at.value]);
  else if (event.key === 'Escape') giveUp();
  else return;
  event.preventDefault();
  event.stopPropagation();
}
onClickOutside(root, close);
useCommands({ 'box.open': () => void open() });
const idOf = (n: number) => `box-${n}`;
</script>

<template>
  <div ref="root" class="box">
    <Button v-if="!isOpen" type="text" class="closed" data-guide="bench#box" @click="open">
      <SearchOutlined /> Find, set or add <span class="key">Ctrl K</span>
    </Button>
    <div v-else class="open" @keydown="keyDown">
      <Input
        :value="line"
        role="combobox"
        aria-autocomplete="list"
        aria-controls="box-list"
        :aria-expanded="found.length > 0"
        :aria-activedescendant="found.length ? idOf(at) : undefined"
        aria-label="find, set or add anything"
        placeholder="rate 35; lifetime 0.7-0.9; additive"
        @update:value="typed"
      >
        <template #prefix><SearchOutlined /></template>
      </Input>
      <div class="panel">
        <div id="box-list" role="listbox" aria-label="What it may mean" @pointerleave="store.preview(null)">
          <div
            v-for="(suggestion, n) in found"
            :id="idOf(n)"
            :key="suggestion.id"
            class="item"
            :class="{ at: n === at, refused: suggestion.problem }"
            role="option"
            :aria-selected="n === at"
            :title="suggestion.help"
            :data-target="suggestion.id"
            @pointermove="at === n || walkTo(n)"
            @click="take(suggestion)"
          >
            <span class="text">{{ suggestion.text }}</span>
            <span class="detail">{{ suggestion.problem || suggestion.detail }}</span>
            <span v-if="suggestion.keyName" class="key">{{ suggestion.keyName }}</span>
          </div>
        </div>
        <p v-if="done.length" class="done" role="status">Done: {{ done.join('; ') }}</p>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <p v-else-if="line.trim() === '' && done.length === 0" class="quiet">
          By our word or any other of the trade. A value sets it; a semicolon carries it out and goes on:
          <Button v-for="example in EXAMPLES" :key="example" type="link" @click="typed(example)">
            {{ example }}
          </Button>
        </p>
        <p v-else-if="line.trim() !== '' && found.length === 0" class="quiet">Nothing is called so.</p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.box {
  position: relative;
  width: 330px;
}
.closed {
  width: 100%;
  height: 26px;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 8px;
  text-align: left;
  color: var(--soft);
  background: #1a1a1c;
  border: 1px solid #3a3a3d;
  border-radius: 4px;
  cursor: text;
}
.closed:hover {
  color: var(--ink);
}
.key {
  margin-left: auto;
  font-size: 12.5px;
  color: var(--dim);
  border: 1px solid #3a3a3d;
  border-radius: 3px;
  padding: 0 5px;
  white-space: nowrap;
}
.panel {
  position: absolute;
  z-index: 1050;
  top: 100%;
  left: -60px;
  width: 450px;
  margin-top: 3px;
  padding: 4px;
  background: #232326;
  border: 1px solid #434347;
  border-radius: 4px;
  box-shadow: 0 8px 24px #000a;
}
.item {
  display: flex;
  align-items: baseline;
  gap: 10px;
  padding: 3px 8px;
  border-radius: 3px;
  cursor: pointer;
}
.item.at {
  background: var(--chip-over);
}
.text {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.detail {
  margin-left: auto;
  color: var(--dim);
  font-size: 12.5px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.done {
  color: var(--soft);
}
.refused .text {
  color: var(--dim);
}
.refused .detail,
.problem {
  color: var(--warn);
  white-space: normal;
}
.panel p {
  margin: 4px 8px;
  white-space: normal;
  font-size: 13px;
}
</style>
