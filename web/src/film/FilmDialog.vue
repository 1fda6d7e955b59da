<script setup lang="ts">
import type { Effect } from '@jinx/core/document';
import {
  filmProblems,
  filmSizes,
  filmWarnings,
  newFilmSettings,
  pictureCount,
  sheetLayout,
  type FilmKind,
  type FilmSettings,
} from '@jinx/core/formats';
import type { View } from '@jinx/player/scene';
import { Alert, Button, message, Modal, Progress, Segmented, Slider } from 'ant-design-vue';
import { computed, ref, shallowRef, watch } from 'vue';
import { api } from '../api';
import { sizeWords } from '../parcels/sizes';
import { tell } from '../tell';
import PictureCanvas from '../PictureCanvas.vue';
import { cameraOf } from './cameras';
import { KIND_CHOICES, leftWords } from './choices';
import FilmFields from './FilmFields.vue';
import FilmPresets from './FilmPresets.vue';
import { useFilm } from './useFilm';

/** Takes pictures and films of an effect. On the bench it is as it stands there, seen as the stage is. */
const props = defineProps<{ projectId: string; effectId: string; effect?: Effect; view?: View }>();
const emit = defineEmits<{ close: [] }>();

const effect = shallowRef<Effect | null>(props.effect ?? null);
if (!props.effect) api.effect(props.effectId).then(({ document }) => (effect.value = document), tell);

/** Settings of each kind as they were left. */
const byKind = ref<Partial<Record<FilmKind, FilmSettings>>>({});
const kind = ref<FilmKind>('png');
const view = props.view ? cameraOf(props.view) : null;
watch(
  [effect, kind],
  () => {
    if (effect.value) byKind.value[kind.value] ??= { ...newFilmSettings(kind.value, effect.value), camera: view };
  },
  { immediate: true },
);
const settings = computed(() => byKind.value[kind.value] ?? null);
const change = (part: Partial<FilmSettings>) => {
  byKind.value[kind.value] = { ...settings.value!, ...part };
};
function use(preset: FilmSettings): void {
  byKind.value[preset.as] = { ...preset };
  kind.value = preset.as;
}

const { picture, problem, progress, isReady, at, take, cancel } = useFilm(props.projectId, effect, settings);
const problems = computed(() => (settings.value ? filmProblems(settings.value) : []));
const warnings = computed(() => (effect.value && settings.value ? filmWarnings(effect.value, settings.value) : []));
const facts = computed(() => {
  if (!settings.value) return [];
  const count = pictureCount(settings.value);
  const { file, memory } = filmSizes(settings.value);
  const sheet = kind.value === 'flipbook' ? sheetLayout({ ...settings.value, pictures: count }) : null;
  return [
    { name: 'Pictures', value: `${count} of ${settings.value.width} × ${settings.value.height}` },
    ...(sheet
      ? [{ name: 'Sheet', value: `${sheet.columns} × ${sheet.rows} cells, ${sheet.width} × ${sheet.height} points` }]
      : []),
    { name: 'File', value: `about ${sizeWords(file)}` },
    {
      name: kind.value === 'film' || kind.value === 'webp' ? 'Played, in memory' : 'In a game’s memory',
      value: sizeWords(memory),
    },
  ];
});
const about = computed(() => KIND_CHOICES.find(({ value }) => value === kind.value)!.about);
const seconds = computed(() => (settings.value ? settings.value.from + at.value * settings.value.length : 0));

async function begin(): Promise<void> {
  const name = await take();
  if (name) void message.success(`${name} is in your downloads.`, 6);
}
function close(): void {
  cancel();
  emit('close');
}
</script>

<template>
  <Modal
    open
    title="Pictures and film"
    :width="1020"
    :mask-closable="false"
    :style="{ top: '28px' }"
    wrap-class-name="film"
    @cancel="close"
  >
    <div class="kinds">
      <Segmented
        v-model:value="kind"
        :options="KIND_CHOICES.map(({ value, label }) => ({ value, label }))"
        :disabled="progress !== null"
        aria-label="What is made"
      />
      <FilmPresets v-if="settings" :project-id="projectId" :settings="settings" @use="use" />
    </div>
    <p class="about">{{ about }}</p>
    <div v-if="settings && effect" class="halves">
      <section aria-label="Preview">
        <div class="preview" :class="{ clear: settings.behind === 'nothing' }">
          <PictureCanvas v-if="picture" :picture="picture" role="img" aria-label="One of the pictures" />
          <p v-else class="quiet">{{ problem ? 'There is no preview.' : 'Drawing…' }}</p>
        </div>
        <div class="time">
          <Slider
            v-model:value="at"
            :min="0"
            :max="0.9999"
            :step="0.0001"
            :tooltip-open="false"
            :disabled="progress !== null"
            aria-label-for-handle="Which picture is previewed"
          />
          <span class="number quiet">{{ seconds.toFixed(2) }} s</span>
        </div>
        <dl class="facts">
          <template v-for="{ name, value } in facts" :key="name">
            <dt>{{ name }}</dt>
            <dd class="number">{{ value }}</dd>
          </template>
        </dl>
        <Alert v-if="problem" type="error" show-icon :message="problem" />
        <Alert v-for="each in problems" :key="each" type="error" show-icon :message="each" />
        <Alert v-if="warnings.length > 0" type="warning">
          <template #message>
            <p v-for="each in warnings" :key="each" class="warning">{{ each }}</p>
          </template>
        </Alert>
      </section>
      <FilmFields :effect="effect" :settings="settings" :view="view" :disabled="progress !== null" @change="change" />
    </div>
    <template #footer>
      <div class="foot">
        <div v-if="progress" class="going" role="status">
          <Progress
            :percent="Math.floor((100 * progress.done) / progress.of)"
            size="small"
            :show-info="false"
            :aria-label="`${progress.done} of ${progress.of} pictures`"
          />
          <span class="number"
            >{{ progress.done }} of {{ progress.of }}, {{ leftWords(progress.secondsLeft) }},
            {{ sizeWords(progress.bytes) }}</span
          >
        </div>
        <Button v-if="progress" @click="cancel">Cancel</Button>
        <Button v-else @click="close">Close</Button>
        <Button
          type="primary"
          :disabled="!isReady || problems.length > 0 || progress !== null"
          :loading="progress !== null"
          @click="begin"
        >
          {{ kind === 'film' || kind === 'webp' ? 'Make it' : 'Take the pictures' }}
        </Button>
      </div>
    </template>
  </Modal>
</template>

<style scoped>
.kinds {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  margin-bottom: 6px;
}
.about {
  color: var(--soft);
  margin: 0 0 12px;
}
.halves {
  display: grid;
  grid-template-columns: 480px minmax(0, 1fr);
  gap: 24px;
  height: min(540px, calc(100vh - 250px));
}
.halves > * {
  overflow: auto;
  min-height: 0;
}
.preview {
  height: 300px;
  display: grid;
  place-items: center;
  background: #0c0c0d;
  border: 1px solid var(--rule);
}
.preview.clear {
  background: repeating-conic-gradient(#1b1b1d 0 25%, #242427 0 50%) 0 0 / 20px 20px;
}
.preview :deep(canvas) {
  max-width: 100%;
  max-height: 298px;
}
.time {
  display: grid;
  grid-template-columns: 1fr 58px;
  align-items: center;
  gap: 12px;
  text-align: right;
}
.facts {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 14px;
  margin: 4px 0 10px;
}
.facts dt {
  color: var(--soft);
}
.facts dd {
  margin: 0;
}
section :deep(.ant-alert) {
  margin-bottom: 6px;
  padding: 5px 10px;
  font-size: 13px;
}
.warning {
  margin: 0;
}
.warning + .warning {
  margin-top: 4px;
}
.foot {
  display: flex;
  justify-content: flex-end;
  align-items: center;
  gap: 8px;
}
.going {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 14px;
  align-items: center;
  text-align: left;
}
</style>
