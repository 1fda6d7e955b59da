<script setup lang="ts">
import { Button } from 'ant-design-vue';
import {
  type Combine,
  type Curve,
  diff,
  highestBase,
  type NumberDeclaration,
  type NumberSetting,
  type Shaper,
  withoutItem,
} from '@jinx/core/document';
import { computed, ref } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import ChoiceChip from '../../chips/ChoiceChip.vue';
import MenuButton from '../../chips/MenuButton.vue';
import { ageShaper, curvesOf, READY_SHAPES, readyCurveOf, shapeByAge } from '../../values/shapers';
import { keptComputed } from '../../values/keptComputed';
import { useSetting } from '../../values/useSetting';
import { copiedKeys } from '../../values/copied';
import CurveEditor from './CurveEditor.vue';
import { areaBetween, CurveScale, lineThrough } from './curveScale';
import { scaleKeys, withKeyAt } from './curveEdit';
import KeyEases from './KeyEases.vue';
import { readLine, type LifeLine } from './lines';

/** One line of the life sheet with its tools: how its shape combines with its base, and the curve, or the two of a band. */
const props = defineProps<{
  line: LifeLine;
  others: readonly LifeLine[];
  width: number;
  height: number;
  life: number;
}>();
const store = useEffectStore();
const editor = ref<InstanceType<typeof CurveEditor>>();
const { setting, declaration, beside, change } = useSetting<NumberSetting, NumberDeclaration>(
  () => props.line.address.setting,
  () => props.line.address,
);
const found = computed(() => ageShaper(setting.value));
const shaper = computed(() => found.value?.shaper ?? null);
const curves = computed(() => (shaper.value ? curvesOf(shaper.value) : []));
const isBand = computed(() => shaper.value?.mapping.kind === 'band');
/** Of a band, whether its upper curve is edited. */
const isUpper = ref(true);
const edited = computed(() => (isBand.value ? curves.value[isUpper.value ? 1 : 0]! : curves.value[0]!));
const isShare = computed(() => shaper.value?.combine === 'multiply');
const limits = computed(() => {
  const { least, most } = declaration.value;
  const combine = shaper.value?.combine;
  if (combine === 'replace' || combine === 'blend') return { least, most };
  return combine === 'add'
    ? { least: least - most, most: most - least }
    : { least: least < 0 ? -100 : 0, most: 1000 };
});
const unit = computed(() => (isShare.value ? '%' : declaration.value.unit === 'count' ? '' : declaration.value.unit));
const SHAPE_CHOICES = READY_SHAPES.map(({ name }) => ({ value: name, text: name }));
const COMBINES = [
  { value: 'multiply', text: 'multiplies' },
  { value: 'add', text: 'adds' },
  { value: 'replace', text: 'replaces' },
  { value: 'blend', text: 'blends by half' },
];

/** Writes the shaper by age of the chosen layers' settings, or gives them one. */
function shape(label: string, edit: (own: Shaper) => Shaper, gesture: string | null = null): void {
  const made = store.newId();
  change(
    `${label} ${props.line.word}`,
    (target) => shapeByAge(target, made, edit),
    gesture && `${props.line.key} ${gesture}`,
  );
}
const setCurve = (curve: Curve, gesture: string | null) =>
  shape(
    'shape',
    (own) => ({
      ...own,
      mapping:
        own.mapping.kind !== 'band'
          ? { kind: 'curve', curve }
          : { ...own.mapping, ...(isUpper.value ? { high: curve } : { low: curve }) },
    }),
    gesture,
  );
const begin = (name: string) => {
  const ready = READY_SHAPES.find((one) => one.name === name);
  if (!ready) return;
  const curve = readyCurveOf(ready.points);
  // What is no share is shaped between nothing and what it is.
  const isPlain = isShare.value || !shaper.value;
  setCurve(isPlain ? curve : allTimes(curve, baseOf.value, limits.value), null);
};
/** Begins a shape of a line without one: level, but for a key where it was clicked. */
function beginAt(event: MouseEvent): void {
  const x = Math.min(1, Math.max(0, event.offsetX / props.width));
  const y = Math.min(1, Math.max(0, 1 - event.offsetY / props.height));
  const level = readyCurveOf(READY_SHAPES[0]!.points);
  setCurve(withKeyAt(level, store.newId(), x, y, { life: props.life, ...limits.value }), null);
}
/** A whole curve made so many times as high. */
const allTimes = (curve: Curve, factor: number, within: { least: number; most: number }): Curve =>
  scaleKeys(curve, new Set(curve.keys.order), factor, { life: props.life, ...within });
const baseOf = computed(() => highestBase(setting.value.base, store.effect!) ?? 1);
/** Another way of combining keeps the picture as near as it can: shares become numbers of the setting's own unit, and back. */
function combine(to: string): void {
  const [from, next] = [shaper.value!.combine, to as Combine];
  const wasShare = from === 'multiply';
  const isNow = next === 'multiply';
  const factor = wasShare === isNow || baseOf.value === 0 ? 1 : wasShare ? baseOf.value : 1 / baseOf.value;
  const { least, most } = declaration.value;
  const times = (curve: Curve) =>
    allTimes(curve, factor, isNow ? { least: -1000, most: 1000 } : { least: least - most, most: most - least });
  shape('combine', (own) => ({
    ...own,
    combine: next,
    amount: next === 'blend' ? 0.5 : 1,
    mapping:
      own.mapping.kind === 'band'
        ? { kind: 'band', low: times(own.mapping.low), high: times(own.mapping.high) }
        : own.mapping.kind === 'curve'
          ? { kind: 'curve', curve: times(own.mapping.curve) }
          : own.mapping,
  }));
}
const LOWER = 0.6;
/** A band gives each particle its own way between two curves. */
function band(): void {
  shape('band', (own) => {
    if (own.mapping.kind === 'band') return { ...own, mapping: { kind: 'curve', curve: own.mapping.high } };
    const [high] = curvesOf(own);
    const low = allTimes(high!, LOWER, limits.value);
    return { ...own, mapping: { kind: 'band', low, high: high! } };
  });
  isUpper.value = true;
}
const mute = () => shape('mute', (own) => ({ ...own, muted: !own.muted }));
const takeOff = () =>
  change(`unshape ${props.line.word}`, (target) => {
    const own = ageShaper(target);
    if (own) target.shapers = withoutItem(target.shapers, own.id);
  });

const more = computed(() => [
  { value: 'copy', text: 'copy its chosen keys, or all (Ctrl C)' },
  ...(copiedKeys.value.length > 0 ? [{ value: 'paste', text: 'paste keys (Ctrl V)' }] : []),
  { value: 'band', text: isBand.value ? 'one curve for all' : 'a band: each goes its own way' },
  { value: 'mute', text: shaper.value?.muted ? 'unmute it' : 'mute it' },
  { value: 'off', text: 'take it off' },
]);
function act(value: string): void {
  const acts: Record<string, () => void> = {
    copy: () => editor.value?.copy(),
    paste: () => editor.value?.paste(),
    band,
    mute,
    off: takeOff,
  };
  acts[value]?.();
}

const curvesBehind = keptComputed(() =>
  props.others.flatMap((other) => {
    const read = readLine(store.effect!, other);
    const own = read && ageShaper(read.setting);
    const isDashed = other.address.setting === 'life.opacity';
    return own ? [{ key: other.key, isDashed, curves: curvesOf(own.shaper) }] : [];
  }),
);
/** The other lines, each on a scale of its own, faintly behind. */
const behind = computed(() =>
  curvesBehind.value.flatMap(({ key, isDashed, curves: all }) => {
    const scale = new CurveScale(all, props.width, props.height);
    return all.map((curve, n) => ({
      key: `${key} ${n}`,
      isDashed,
      line: lineThrough(scale.points(curve, props.life)),
    }));
  }),
);
/** The same line of the other chosen layers, where it is another: what is done here is given to them. */
const differing = computed(() =>
  beside.value.flatMap(({ layer, setting: other }) => {
    const own = ageShaper(other);
    return diff(own?.shaper ?? null, shaper.value).length > 0
      ? [{ layer, curves: own ? curvesOf(own.shaper) : [] }]
      : [];
  }),
);
const mixedLines = computed(() => {
  const all = differing.value.flatMap((other) => other.curves);
  const scale = new CurveScale([...curves.value, ...all], props.width, props.height);
  return all.map((curve) => lineThrough(scale.points(curve, props.life)));
});
/** Between what it comes to for the least and the most of its particles. */
function spreadOn(scale: CurveScale): string {
  if (isBand.value) {
    const [low, high] = curves.value;
    return areaBetween(scale.points(low!, props.life), scale.points(high!, props.life));
  }
  const { base } = setting.value;
  if (base.kind !== 'spread' || !isShare.value || !(base.high > 0)) return '';
  return areaBetween(
    scale.points(edited.value, props.life),
    scale.points(edited.value, props.life, base.low / base.high),
  );
}
</script>

<template>
  <div class="tools">
    <MenuButton label="ready shapes…" :choices="SHAPE_CHOICES" previews @choose="begin" />
    <ChoiceChip
      v-if="shaper"
      :value="shaper.combine"
      :choices="COMBINES"
      :label="`how age shapes ${line.word}`"
      previews
      @choose="combine"
    />
    <KeyEases :disabled="!shaper" @ease="editor?.ease($event)" @flip="editor?.flip()" />
    <template v-if="shaper">
      <Button v-if="isBand" type="text" @click="isUpper = !isUpper">
        {{ isUpper ? 'upper edge' : 'lower edge' }}
      </Button>
      <MenuButton label="this shape…" :choices="more" @choose="act" />
    </template>
    <span
      v-if="differing.length > 0"
      class="mixed"
      data-mixed
      :title="`Of ${differing.map(({ layer }) => layer).join(', ')} it is another, shown dotted. What is done here is given to all that are chosen.`"
      >mixed</span
    >
    <span v-else-if="!shaper" class="quiet">a double click shapes it</span>
  </div>
  <div class="curves" :class="{ muted: shaper?.muted }">
    <svg class="behind" :width="width" :height="height" aria-hidden="true">
      <path v-for="other in behind" :key="other.key" :d="other.line" :class="{ dashed: other.isDashed }" />
      <path v-for="(path, n) in mixedLines" :key="`mixed ${n}`" :d="path" class="dotted" />
    </svg>
    <CurveEditor
      v-if="shaper"
      ref="editor"
      :curve="edited"
      :beside="curves"
      :width="width"
      :height="height"
      :life="life"
      :label="isBand ? `${line.word}, ${isUpper ? 'upper' : 'lower'} edge` : line.word"
      :is-dashed="line.key === 'life.opacity'"
      :least="limits.least"
      :most="limits.most"
      :unit="unit"
      @change="setCurve"
      @done="store.endGesture()"
    >
      <template #default="{ scale }">
        <path class="area" :d="spreadOn(scale)" />
        <path v-if="isBand" class="edge" :d="lineThrough(scale.points(curves[isUpper ? 0 : 1]!, life))" />
      </template>
    </CurveEditor>
    <div
      v-else
      :style="{ height: `${height}px` }"
      title="Double click begins a shape with a key there"
      @dblclick="beginAt"
    ></div>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  gap: 2px 5px;
  height: 24px;
  align-items: center;
  overflow: hidden;
  white-space: nowrap;
  font-size: 12.5px;
}
.tools .ant-btn {
  padding: 0 3px;
}
.curves {
  position: relative;
  margin-bottom: 4px;
}
.curves.muted {
  opacity: 0.45;
}
.behind {
  position: absolute;
  inset: 0;
  opacity: 0.28;
  pointer-events: none;
  overflow: visible;
}
.behind path {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2;
}
.behind .dashed {
  stroke: #fff;
  stroke-dasharray: 5 4;
}
.behind .dotted {
  stroke: #fff;
  stroke-dasharray: 1 4;
}
.mixed {
  font-style: italic;
  color: var(--soft);
}
.area {
  fill: #dfe875;
  opacity: 0.13;
  pointer-events: none;
}
.edge {
  fill: none;
  stroke: var(--accent);
  stroke-opacity: 0.6;
  pointer-events: none;
}
</style>
