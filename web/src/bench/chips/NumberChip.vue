<script setup lang="ts">
import { Button } from 'ant-design-vue';
import {
  type Effect,
  formatAddress,
  highestBase,
  type HolderAddress,
  listed,
  type NumberDeclaration,
  type NumberSetting,
  type Shaper,
  structuredCopy,
  unmeasured,
  withoutItem,
} from '@jinx/core/document';
import { computed, inject, ref, useId } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { DRAGS } from '../bench';
import { readEntry, withEach } from '../entry/entry';
import { settingText, shapedText, shownUnit, stepFor } from '../entry/format';
import { plainNumber, unitText } from '../entry/numbers';
import { takeChipKey } from '../entry/chipKeys';
import { goOn } from '../entry/row';
import { differsHere, setDiffering } from '../values/lookNumbers';
import { sideways } from '../entry/sideways';
import { useTyped } from '../entry/useTyped';
import { useNumberActs } from './useNumberActs';
import { marks, toggleMark } from '../values/marks';
import { changeBase } from '../values/measured';
import { muteSetting, resetSetting, type SettingAt } from '../values/settingActs';
import { useSetting } from '../values/useSetting';
import ChipDrawer from './ChipDrawer.vue';
import MenuButton from './MenuButton.vue';
import Refusal from '../Refusal.vue';
import { ageShaper } from '../values/shapers';
import ShaperWords from '../shapers/ShaperWords.vue';

/** A number in a sentence: dragged, typed (sums and spreads too), nudged, shaped, muted, reset. */
const props = defineProps<{
  setting: string;
  of?: HolderAddress;
  label?: string;
  unit?: NumberDeclaration['unit'];
}>();
const store = useEffectStore();

const {
  address,
  setting: chosen,
  declaration: declared,
  beside,
  isMixed,
  change: changeSetting,
} = useSetting<NumberSetting, NumberDeclaration>(
  () => props.setting,
  () => props.of,
);
const declaration = computed((): NumberDeclaration =>
  props.unit === undefined ? declared.value : { ...declared.value, unit: props.unit },
);
/** A measure by its name and its value. */
function measureName(id: string): string {
  const measure = store.effect?.measures.byId[id];
  return measure ? `${measure.name}, ${plainNumber(measure.value)}${unitText(declaration.value.unit)}` : 'a measure';
}
const textOf = (setting: NumberSetting) => shapedText(setting, declaration.value, measureName);
const text = computed(() => textOf(chosen.value));
/** What each of the chosen layers has, where they differ. */
const mixed = computed(() =>
  isMixed.value
    ? [{ layer: store.chosen!.name, setting: chosen.value }, ...beside.value]
        .map(({ layer, setting }) => `${layer} ${textOf(setting)}`)
        .join(', ')
    : '',
);
const isShaped = computed(() => chosen.value.shapers.order.length > 0);
const name = computed(() => props.label ?? declaration.value.name);

/** Tells this chip's steps of undo from those of another layer's. */
const gesture = useId();
const isOpen = ref(false);
const root = ref<HTMLElement>();
/** As it is typed: a measure by its value. */
const plainChosen = computed(() => ({ ...chosen.value, base: unmeasured(chosen.value.base, store.effect!) }));
const shownText = () =>
  (isMixed.value ? '' : settingText(plainChosen.value, declaration.value, measureName)).replace(/\u00a0/g, ' ');
const change = (
  what: string,
  recipe: (target: NumberSetting, layerId: string, draft: Effect) => void,
  ofGesture: string | null = null,
) => changeSetting(`${what} ${name.value}`, recipe, ofGesture);
const entryOf = (typedText: string) =>
  readEntry(typedText, declaration.value, shownUnit(chosen.value, declaration.value));
const {
  isTyping,
  typed,
  problem,
  hold,
  open: openField,
  commit: commitField,
  cancel: cancelField,
} = useTyped(shownText, (typedText) => {
  const entry = entryOf(typedText);
  // All or none: what goes beyond the limits in one of the layers is refused in all.
  for (const other of [{ setting: chosen.value }, ...beside.value])
    entry(unmeasured(other.setting.base, store.effect!));
  change('set', (target, _, draft) => changeBase(draft, target, entry));
});
/** What is being typed, as it would be taken: shown while it is not plainly the same. */
const reading = computed(() => {
  if (!isTyping.value || isMixed.value || typed.value === shownText()) return '';
  try {
    return textOf({ ...chosen.value, base: entryOf(typed.value)(unmeasured(chosen.value.base, store.effect!)) });
  } catch {
    return '';
  }
});

async function open(begun?: string): Promise<void> {
  isOpen.value = true;
  await openField(begun);
}
const drawer = ref<InstanceType<typeof ChipDrawer>>();
function commit(): boolean {
  if (!commitField()) return false;
  isOpen.value = false;
  return true;
}
function cancel(): void {
  cancelField();
  isOpen.value = false;
}
function giveUp(): void {
  cancel();
  void goOn(() => root.value?.querySelector('button.chip'), 0);
}
function finish(by: 1 | -1): void {
  if (commit()) void goOn(() => root.value?.querySelector('button.chip'), by);
}
/** The drawer's own controls are reached by the down arrow, since Tab goes on to the next chip. */
const enterDrawer = () => drawer.value?.enter();
function leave(event: FocusEvent): void {
  const to = event.relatedTarget as Node;
  if (root.value?.contains(to) || drawer.value?.holds(to)) return;
  // What is refused stays as it was typed, with the reason above it.
  if (!commit()) isOpen.value = false;
}

function shifted(base: NumberSetting['base'], by: number): NumberSetting['base'] {
  const { least, most } = declaration.value;
  const fit = (value: number) => Math.min(most, Math.max(least, Number(value.toPrecision(5))));
  if (base.kind === 'fixed') return { kind: 'fixed', value: fit(base.value + by) };
  if (base.kind === 'spread') return { kind: 'spread', low: fit(base.low + by), high: fit(base.high + by) };
  return base.kind === 'set' ? withEach(base, (value) => fit(value + by)) : base;
}
const stepOf = (base: NumberSetting['base']) => stepFor(highestBase(base, store.effect!) ?? 1, declaration.value);
/** What each layer began the drag with: all go on by the same way. */
const starts = new Map<string, NumberSetting['base']>();
const drags = inject(DRAGS, () => undefined);
const dragged = sideways({
  begin: () => starts.clear(),
  by: (steps) => {
    const by = steps * stepOf(starts.get(store.chosenId) ?? chosen.value.base);
    change(
      'drag',
      (target, layerId, draft) => {
        if (!starts.has(layerId)) starts.set(layerId, structuredCopy(unmeasured(target.base, draft)));
        changeBase(draft, target, () => shifted(starts.get(layerId)!, by));
      },
      `drag ${gesture}`,
    );
  },
  click: (event) => (event.ctrlKey || event.metaKey ? toggleMark(markAddress.value) : void open()),
  dragBegins: () => drags(true),
  end: () => {
    drags(false);
    store.endGesture();
  },
});
/** Makes it so many times as large, in each layer as far as it may be. */
function multiply(by: number): void {
  const { least, most, whole } = declaration.value;
  const times = (value: number) => Math.min(most, Math.max(least, whole ? Math.round(value * by) : value * by));
  change(by > 1 ? 'double' : 'halve', (target, _, draft) =>
    changeBase(draft, target, (base) => {
      if (base.kind === 'fixed') return { kind: 'fixed', value: times(base.value) };
      if (base.kind === 'spread') return { kind: 'spread', low: times(base.low), high: times(base.high) };
      return base.kind === 'set' ? withEach(base, times) : base;
    }),
  );
}
function nudge(steps: number): void {
  const by = steps * stepOf(chosen.value.base);
  change('nudge', (target, _, draft) => changeBase(draft, target, (base) => shifted(base, by)), `nudge ${gesture}`);
}
const markAddress = computed(() => ({ ...address.value, setting: props.setting }));
const isMarked = computed(() => marks.value.has(formatAddress(markAddress.value)));
function keyDown(event: KeyboardEvent): void {
  if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
    event.preventDefault();
    toggleMark(markAddress.value);
  } else takeChipKey(event, { open: (begun) => void open(begun), nudge, multiply });
}
/** Shapers that the life sheet does not show. */
const shapersBeside = computed(() =>
  listed(chosen.value.shapers).filter(
    ({ id, item }) => id !== ageShaper(chosen.value)?.id && item.reads.kind !== 'age',
  ),
);
const setShaper = (id: string, shaper: Shaper, ofGesture: string | null) =>
  change('shape', (target) => (target.shapers.byId[id] = shaper), ofGesture);
const removeShaper = (id: string) =>
  change('unshape', (target) => (target.shapers = withoutItem(target.shapers, id)));
function unshape(): void {
  change('unshape', (target) => (target.shapers = { order: [], byId: {} }));
  cancel();
}
const settingAt = (): SettingAt => ({
  ...{ address: markAddress.value, name: name.value },
  ...{ setting: chosen.value, declaration: declaration.value },
});
function mute(): void {
  muteSetting(store, settingAt());
  cancel();
}
/** Of a look that others use too: whether this number differs in the chosen layer. */
const differs = computed(() => differsHere(store.effect!, address.value, props.setting));
const setHere = (isDifferent: boolean) =>
  store.change(isDifferent ? `let ${name.value} differ here` : `take ${name.value} from the look`, (draft) => {
    if (address.value.kind === 'step') setDiffering(draft, address.value, props.setting, isDifferent);
  });
const { offered, shape, copy, pastable, paste, measures, measure, given, take, canBeBroughtOut, bringOut } =
  useNumberActs(
    {
      address: markAddress,
      setting: chosen,
      declaration,
      name,
      change: changeSetting,
    },
    cancel,
  );
function reset(): void {
  resetSetting(store, settingAt());
  cancel();
}
</script>

<template>
  <span ref="root" class="holder" :data-guide="`setting ${formatAddress(markAddress)}`">
    <button
      v-if="!isTyping"
      type="button"
      class="chip drags number"
      :class="{ shaped: isShaped, muted: chosen.muted, differs: differs, mixed: isMixed, marked: isMarked }"
      :aria-label="`${name}: ${isMixed ? `mixed, ${mixed}` : text}`"
      :title="`${mixed ? `${mixed}. ` : ''}Drag, finely with Alt, or click to type. A click with Ctrl marks it, to change several at once.`"
      :aria-description="declaration.help"
      :data-setting="setting"
      :data-address="formatAddress(markAddress)"
      v-on="dragged"
      @keydown="keyDown"
    >
      {{ isMixed ? 'mixed' : text }}
    </button>
    <Refusal v-else :problem="isOpen ? '' : problem">
      <input
        :ref="hold"
        v-model="typed"
        class="chip number typing"
        :aria-label="name"
        :aria-invalid="problem !== ''"
        @focus="isOpen = true"
        @keydown.enter.prevent="finish(1)"
        @keydown.tab.prevent="finish($event.shiftKey ? -1 : 1)"
        @keydown.down.prevent="enterDrawer"
        @keydown.esc.stop="giveUp"
        @blur="leave"
      />
    </Refusal>
    <ChipDrawer v-if="isOpen && root" ref="drawer" :anchor="root" @focusout="leave" @keydown.esc.stop="cancel">
      <span v-if="problem" class="problem" role="alert">{{ problem }}</span>
      <span v-else-if="reading" class="hint" data-reading>is read as {{ reading }}</span>
      <span v-else class="hint">{{
        declaration.bases.includes('spread')
          ? '2, 2-5, 3 ± 1, 1 or 2 or 4, *1.15, −20%, ±20%; Tab goes on, ↓ to what is below'
          : '2, 1+1, *1.15, +10, −20%; Tab goes on, ↓ to what is below'
      }}</span>
      <span class="acts">
        <MenuButton v-if="offered.length" label="Shape it…" :choices="offered" previews @choose="shape" />
        <Button v-if="isShaped" type="link" @click="unshape">Take the shape off</Button>
        <MenuButton v-if="given.length" label="Taken from…" :choices="given" previews @choose="take" />
        <MenuButton v-if="measures.length" label="Measured by…" :choices="measures" previews @choose="measure" />
        <Button v-if="canBeBroughtOut" type="link" title="Make a dial of it, which others may turn" @click="bringOut">
          Bring it out
        </Button>
        <Button type="link" @click="mute">{{ chosen.muted ? 'Unmute' : 'Mute' }}</Button>
        <Button type="link" @click="reset">Reset</Button>
        <Button type="link" @click="copy">Copy</Button>
        <Button v-if="pastable" type="link" :title="`Takes over ${pastable.name}`" @click="paste"> Paste </Button>
        <Button v-if="differs !== null" type="link" @click="setHere(!differs)">
          {{ differs ? 'As the look has it' : 'Only in this layer' }}
        </Button>
      </span>
      <ShaperWords
        v-for="{ id, item } in shapersBeside"
        :key="id"
        :shaper="item"
        :label="name"
        :reads="declaration.reads"
        @change="(shaper, drag) => setShaper(id, shaper, drag)"
        @remove="removeShaper(id)"
      />
    </ChipDrawer>
  </span>
</template>

<style scoped>
/* Several layers that differ: the value is no one's. */
.mixed {
  font-style: italic;
  color: var(--soft);
}
.differs::after {
  content: ' here';
  font-size: 12.5px;
  color: var(--accent);
}
.marked {
  outline: 1.5px solid var(--accent);
}
.holder {
  position: relative;
  display: inline-block;
}
.typing {
  width: 118px;
  cursor: text;
  background: var(--deep);
  box-shadow: inset 0 0 0 1px var(--accent);
}
.hint {
  color: var(--soft);
}
.problem {
  color: var(--warn);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 6px;
}
</style>
