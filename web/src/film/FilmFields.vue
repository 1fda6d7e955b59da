<script setup lang="ts">
import { listed, type Effect, type Tier } from '@jinx/core/document';
import { loopOf, wholeLength, type FilmSettings } from '@jinx/core/formats';
import { Checkbox, InputNumber, Select, Slider, Switch } from 'ant-design-vue';
import { computed } from 'vue';
import { ALPHA_CHOICES, BEHIND_CHOICES, CODEC_CHOICES, FIGURE_CHOICES } from './choices';

/** How pictures are taken: what is asked for of the kind at hand. */
const props = defineProps<{
  effect: Effect;
  settings: FilmSettings;
  tiers: readonly Tier[];
  /** Where the stage is seen from, where there is one. */
  view: FilmSettings['camera'];
  disabled: boolean;
}>();
const emit = defineEmits<{ change: [part: Partial<FilmSettings>] }>();

const is = (...kinds: FilmSettings['as'][]) => kinds.includes(props.settings.as);
const isClear = computed(() => props.settings.behind === 'nothing');
const length = computed(() => wholeLength(props.effect));
const hasHold = computed(() => props.effect.stretches.hold.kind !== 'none');
/** A number that was cleared stays what it was. */
const set = (name: keyof FilmSettings, value: unknown) => {
  if (typeof value === 'number' && Number.isFinite(value)) emit('change', { [name]: value } as Partial<FilmSettings>);
};

const cameras = computed(() => [
  ...(props.view ? [{ value: 'view', label: 'as the stage is seen', camera: props.view }] : []),
  ...listed(props.effect.stage.cameras).map(({ id, item }) => ({
    value: id,
    label: item.name,
    camera: {
      position: [...item.position],
      target: [...item.target],
      fieldOfView: item.fieldOfView,
      follows: item.follows,
    } as FilmSettings['camera'],
  })),
  { value: 'own', label: 'as it opens', camera: null },
]);
const camera = computed(() => {
  const text = JSON.stringify(props.settings.camera);
  return cameras.value.find((each) => JSON.stringify(each.camera) === text)?.value ?? 'preset';
});
const cameraChoices = computed(() => [
  ...cameras.value.map(({ value, label }) => ({ value, label })),
  ...(camera.value === 'preset' ? [{ value: 'preset', label: 'as the preset has it' }] : []),
]);
function chooseCamera(value: unknown): void {
  const found = cameras.value.find((each) => each.value === value);
  if (found) emit('change', { camera: found.camera });
}
const dials = computed(() =>
  listed(props.effect.dials).flatMap(({ id, item }) =>
    item.kind === 'number' || item.kind === 'switch' ? [{ id, item }] : [],
  ),
);
const setDial = (id: string, value: number | boolean) =>
  emit('change', { dials: { ...props.settings.dials, [id]: value } });
const tierChoices = computed(() => props.tiers.map((value) => ({ value, label: value })));
</script>

<template>
  <form class="fields" aria-label="How they are taken" @submit.prevent>
    <h4>Size and time</h4>
    <label>
      <span>Width and height</span>
      <span class="pair">
        <InputNumber
          size="small"
          :value="settings.width"
          :min="1"
          :max="8192"
          :precision="0"
          :disabled="disabled"
          aria-label="Width, points"
          @change="set('width', $event)"
        />
        ×
        <InputNumber
          size="small"
          :value="settings.height"
          :min="1"
          :max="8192"
          :precision="0"
          :disabled="disabled"
          aria-label="Height, points"
          @change="set('height', $event)"
        />
      </span>
    </label>
    <label title="Each picture is drawn so many times as large each way, and brought to its size: smooth edges">
      <span>Supersampling</span>
      <Select
        size="small"
        :value="settings.supersampling"
        :options="[1, 2, 3, 4].map((value) => ({ value, label: value === 1 ? 'none' : `${value} × ${value}` }))"
        :disabled="disabled"
        @change="set('supersampling', $event)"
      />
    </label>
    <label>
      <span>Pictures a second</span>
      <InputNumber
        size="small"
        :value="settings.rate"
        :min="1"
        :max="120"
        :disabled="disabled"
        @change="set('rate', $event)"
      />
    </label>
    <label>
      <span>From, for</span>
      <span class="pair">
        <InputNumber
          size="small"
          :value="settings.from"
          :min="0"
          :max="3600"
          :step="0.1"
          :disabled="disabled"
          aria-label="From, seconds"
          @change="set('from', $event)"
        />
        s,
        <InputNumber
          size="small"
          :value="settings.length"
          :min="0.001"
          :max="3600"
          :step="0.1"
          :disabled="disabled"
          aria-label="For, seconds"
          @change="set('length', $event)"
        />
        s
      </span>
    </label>
    <p class="quiet hint">All of it takes {{ Number(length.toFixed(3)) }} s, held for one turn.</p>
    <label v-if="hasHold">
      <span>Is let go</span>
      <span class="pair">
        <Switch
          size="small"
          :checked="settings.letGoAt !== null"
          :disabled="disabled"
          aria-label="It is let go"
          @change="emit('change', { letGoAt: $event ? length - effect.stretches.closing : null })"
        />
        <template v-if="settings.letGoAt !== null">
          at
          <InputNumber
            size="small"
            :value="settings.letGoAt"
            :min="0"
            :max="3600"
            :step="0.1"
            :disabled="disabled"
            aria-label="Let go at, seconds"
            @change="set('letGoAt', $event)"
          />
          s
        </template>
      </span>
    </label>

    <h4>What is seen</h4>
    <label>
      <span>Camera</span>
      <Select size="small" :value="camera" :options="cameraChoices" :disabled="disabled" @change="chooseCamera" />
    </label>
    <label>
      <span>Behind it</span>
      <Select
        size="small"
        :value="settings.behind"
        :options="BEHIND_CHOICES as never"
        :disabled="disabled"
        @change="emit('change', { behind: $event as FilmSettings['behind'] })"
      />
    </label>
    <label>
      <span>Figures</span>
      <Select
        size="small"
        :value="settings.figure"
        :options="FIGURE_CHOICES as never"
        :disabled="disabled"
        @change="emit('change', { figure: $event as FilmSettings['figure'] })"
      />
    </label>
    <Checkbox
      v-if="isClear"
      :checked="settings.ground"
      :disabled="disabled"
      @change="emit('change', { ground: $event.target.checked })"
      >The ground hides what is below it</Checkbox
    >
    <Checkbox
      v-if="!is('exr')"
      :checked="settings.bloom"
      :disabled="disabled"
      @change="emit('change', { bloom: $event.target.checked })"
      >Through its lens and air: bloom, exposure, fog</Checkbox
    >
    <label>
      <span>Quality</span>
      <Select
        size="small"
        :value="settings.quality"
        :options="tierChoices"
        :disabled="disabled"
        @change="emit('change', { quality: $event as Tier })"
      />
    </label>
    <label title="Where its random draws begin; empty: its own">
      <span>Seed</span>
      <InputNumber
        size="small"
        :value="settings.seed ?? undefined"
        :min="0"
        :max="4294967295"
        :precision="0"
        :placeholder="String(effect.seed)"
        :disabled="disabled"
        @change="emit('change', { seed: typeof $event === 'number' ? $event : null })"
      />
    </label>
    <label v-for="{ id, item } in dials" :key="id">
      <span>{{ item.name }}</span>
      <Switch
        v-if="item.kind === 'switch'"
        size="small"
        :checked="(settings.dials[id] as boolean | undefined) ?? item.value"
        :disabled="disabled"
        @change="setDial(id, $event === true)"
      />
      <Slider
        v-else
        :value="(settings.dials[id] as number | undefined) ?? item.value"
        :min="Math.min(item.least, item.most)"
        :max="Math.max(item.least, item.most)"
        :step="Math.abs(item.most - item.least) / 200 || 1"
        :disabled="disabled"
        @change="setDial(id, $event as number)"
      />
    </label>

    <h4>{{ is('film') ? 'Film' : is('flipbook') ? 'Sheet' : 'Pictures' }}</h4>
    <label v-if="is('png')">
      <span>Bits of a channel</span>
      <Select
        size="small"
        :value="settings.bits"
        :options="[8, 16].map((value) => ({ value, label: String(value) }))"
        :disabled="disabled"
        @change="emit('change', { bits: $event as 8 | 16 })"
      />
    </label>
    <label
      v-if="is('png', 'flipbook') && isClear"
      title="Straight: colours as they are. Premultiplied: times opacity."
    >
      <span>Opacity</span>
      <Select
        size="small"
        :value="settings.alpha"
        :options="ALPHA_CHOICES as never"
        :disabled="disabled"
        @change="emit('change', { alpha: $event as FilmSettings['alpha'] })"
      />
    </label>
    <Checkbox
      v-if="is('png', 'exr') && isClear"
      :checked="settings.apart"
      :disabled="disabled"
      @change="emit('change', { apart: $event.target.checked })"
      >What is added apart from what covers</Checkbox
    >
    <Checkbox
      v-if="is('exr')"
      :checked="settings.passes"
      :disabled="disabled"
      @change="emit('change', { passes: $event.target.checked })"
      >Passes: depth, identity, bent air, what multiplies</Checkbox
    >
    <template v-if="is('flipbook')">
      <label title="Cells side by side; 0: as many as make the sheet nearly square">
        <span>Columns</span>
        <InputNumber
          size="small"
          :value="settings.columns"
          :min="0"
          :max="256"
          :precision="0"
          :disabled="disabled"
          @change="set('columns', $event)"
        />
      </label>
      <label
        title="Points round each cell that repeat its border, so that no neighbour is mixed in where it is drawn smaller"
      >
        <span>Padding</span>
        <InputNumber
          size="small"
          :value="settings.padding"
          :min="0"
          :max="64"
          :precision="0"
          :disabled="disabled"
          @change="set('padding', $event)"
        />
      </label>
      <Checkbox
        :checked="settings.loops"
        :disabled="disabled"
        @change="emit('change', $event.target.checked ? loopOf(effect) : { loops: false })"
        >It goes round</Checkbox
      >
      <Checkbox
        :checked="settings.motion"
        :disabled="disabled"
        @change="emit('change', { motion: $event.target.checked })"
        >A sheet of motion, to blend from one picture to the next</Checkbox
      >
      <Checkbox
        :checked="settings.normals"
        :disabled="disabled"
        @change="emit('change', { normals: $event.target.checked })"
        >A sheet of normals, to be lit</Checkbox
      >
    </template>
    <template v-if="is('film')">
      <label>
        <span>Codec</span>
        <Select
          size="small"
          :value="settings.codec"
          :options="CODEC_CHOICES as never"
          :disabled="disabled"
          @change="emit('change', { codec: $event as FilmSettings['codec'] })"
        />
      </label>
      <label>
        <span>Kilobits a second</span>
        <InputNumber
          size="small"
          :value="settings.bitrate"
          :min="100"
          :max="200000"
          :step="500"
          :precision="0"
          :disabled="disabled"
          @change="set('bitrate', $event)"
        />
      </label>
    </template>
  </form>
</template>

<style scoped>
.fields {
  display: grid;
  align-content: start;
  gap: 7px;
  padding-right: 8px;
}
h4 {
  margin: 8px 0 0;
  color: var(--soft);
  font-size: 13px;
  font-weight: 400;
}
h4:first-child {
  margin-top: 0;
}
label:not(.ant-checkbox-wrapper) {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  align-items: center;
  gap: 10px;
}
.pair {
  display: flex;
  gap: 6px;
  align-items: center;
}
.fields :deep(.ant-input-number) {
  width: 92px;
}
.fields :deep(.ant-checkbox-wrapper) {
  margin-inline-start: 0;
}
.hint {
  margin: -4px 0 0 160px;
  font-size: 12.5px;
}
</style>
