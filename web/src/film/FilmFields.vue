<script setup lang="ts">
import { listed, type Effect } from '@jinx/core/document';
import { loopOf, wholeLength, type FilmSettings } from '@jinx/core/formats';
import { Checkbox, ConfigProvider, Slider, Switch } from 'ant-design-vue';
import { computed, provide, toRef } from 'vue';
import { TIER_CHOICES } from '../bench/quality/tiers';
import { camerasOf, type FilmCamera } from './cameras';
import CheckOf from './CheckOf.vue';
import ChoiceOf from './ChoiceOf.vue';
import { ALPHA_CHOICES, BEHIND_CHOICES, BIT_CHOICES, CODEC_CHOICES, FIGURE_CHOICES, SAMPLE_CHOICES } from './choices';
import { FILM_FORM } from './fields';
import NumberOf from './NumberOf.vue';
import SelectField from '../SelectField.vue';

/** How pictures are taken: what is asked for of the kind at hand. */
const props = defineProps<{
  effect: Effect;
  settings: FilmSettings;
  /** Where the stage is seen from, where there is one. */
  view: FilmCamera;
  disabled: boolean;
}>();
const emit = defineEmits<{ change: [part: Partial<FilmSettings>] }>();
const change = (part: Partial<FilmSettings>) => emit('change', part);
provide(FILM_FORM, { settings: toRef(props, 'settings'), change });

const is = (...kinds: FilmSettings['as'][]) => kinds.includes(props.settings.as);
const isClear = computed(() => props.settings.behind === 'nothing');
const length = computed(() => wholeLength(props.effect));
const hasHold = computed(() => props.effect.stretches.hold.kind !== 'none');

const cameras = computed(() => camerasOf(props.effect, props.view));
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
  if (found) change({ camera: found.camera });
}
const dials = computed(() =>
  listed(props.effect.dials).flatMap(({ id, item }) =>
    item.kind === 'number' || item.kind === 'switch' ? [{ id, item }] : [],
  ),
);
const setDial = (id: string, value: number | boolean) => change({ dials: { ...props.settings.dials, [id]: value } });
</script>

<template>
  <ConfigProvider component-size="small" :component-disabled="disabled">
    <form class="fields" aria-label="How they are taken" @submit.prevent>
      <h4>Size and time</h4>
      <label>
        <span>Width and height</span>
        <span class="pair">
          <NumberOf name="width" label="Width, points" /> × <NumberOf name="height" label="Height, points" />
        </span>
      </label>
      <label title="Each picture is drawn so many times as large each way, and brought to its size: smooth edges">
        <span>Supersampling</span>
        <ChoiceOf name="supersampling" :choices="SAMPLE_CHOICES" />
      </label>
      <label>
        <span>Pictures a second</span>
        <NumberOf name="rate" />
      </label>
      <label>
        <span>From, for</span>
        <span class="pair">
          <NumberOf name="from" :step="0.1" label="From, seconds" /> s,
          <NumberOf name="length" :step="0.1" label="For, seconds" /> s
        </span>
      </label>
      <p class="quiet hint">All of it takes {{ Number(length.toFixed(3)) }} s, held for one turn.</p>
      <label v-if="hasHold">
        <span>Is let go</span>
        <span class="pair">
          <Switch
            size="small"
            :checked="settings.letGoAt !== null"
            aria-label="It is let go"
            @change="change({ letGoAt: $event ? length - effect.stretches.closing : null })"
          />
          <template v-if="settings.letGoAt !== null">
            at <NumberOf name="letGoAt" :step="0.1" label="Let go at, seconds" /> s
          </template>
        </span>
      </label>

      <h4>What is seen</h4>
      <label>
        <span>Camera</span>
        <SelectField :value="camera" :options="cameraChoices" @change="chooseCamera" />
      </label>
      <label>
        <span>Behind it</span>
        <ChoiceOf name="behind" :choices="BEHIND_CHOICES" />
      </label>
      <label>
        <span>Figures</span>
        <ChoiceOf name="figure" :choices="FIGURE_CHOICES" />
      </label>
      <CheckOf v-if="isClear" name="ground">The ground hides what is below it</CheckOf>
      <CheckOf v-if="!is('exr')" name="bloom">Through its lens and air: bloom, exposure, fog</CheckOf>
      <label>
        <span>Quality</span>
        <ChoiceOf name="quality" :choices="TIER_CHOICES" />
      </label>
      <label title="Where its random draws begin; empty: its own">
        <span>Seed</span>
        <NumberOf name="seed" :placeholder="String(effect.seed)" />
      </label>
      <label v-for="{ id, item } in dials" :key="id">
        <span>{{ item.name }}</span>
        <Switch
          v-if="item.kind === 'switch'"
          size="small"
          :checked="(settings.dials[id] as boolean | undefined) ?? item.value"
          @change="setDial(id, $event === true)"
        />
        <Slider
          v-else
          :value="(settings.dials[id] as number | undefined) ?? item.value"
          :min="Math.min(item.least, item.most)"
          :max="Math.max(item.least, item.most)"
          :step="Math.abs(item.most - item.least) / 200 || 1"
          :disabled="disabled"
          :aria-label-for-handle="item.name"
          @change="setDial(id, $event as number)"
        />
      </label>

      <h4>{{ is('film') ? 'Film' : is('flipbook') ? 'Sheet' : 'Pictures' }}</h4>
      <label v-if="is('png')">
        <span>Bits of a channel</span>
        <ChoiceOf name="bits" :choices="BIT_CHOICES" />
      </label>
      <label
        v-if="is('png', 'flipbook') && isClear"
        title="Straight: colours as they are. Premultiplied: times opacity."
      >
        <span>Opacity</span>
        <ChoiceOf name="alpha" :choices="ALPHA_CHOICES" />
      </label>
      <CheckOf v-if="is('png', 'exr') && isClear" name="apart">What is added apart from what covers</CheckOf>
      <CheckOf v-if="is('exr')" name="passes">Passes: depth, identity, bent air, what multiplies</CheckOf>
      <template v-if="is('flipbook')">
        <label title="Cells side by side; 0: as many as make the sheet nearly square">
          <span>Columns</span>
          <NumberOf name="columns" />
        </label>
        <label
          title="Points round each cell that repeat its border, so that no neighbour is mixed in where it is drawn smaller"
        >
          <span>Padding</span>
          <NumberOf name="padding" />
        </label>
        <Checkbox
          class="loops"
          :checked="settings.loops"
          @change="change($event.target.checked ? loopOf(effect) : { loops: false })"
          >It goes round</Checkbox
        >
        <CheckOf name="motion">A sheet of motion, to blend from one picture to the next</CheckOf>
        <CheckOf name="normals">A sheet of normals, to be lit</CheckOf>
      </template>
      <template v-if="is('film')">
        <label>
          <span>Codec</span>
          <ChoiceOf name="codec" :choices="CODEC_CHOICES" />
        </label>
        <label>
          <span>Kilobits a second</span>
          <NumberOf name="bitrate" :step="500" />
        </label>
      </template>
    </form>
  </ConfigProvider>
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
.loops {
  margin-inline-start: 0;
}
.hint {
  margin: -4px 0 0 160px;
  font-size: 12.5px;
}
</style>
