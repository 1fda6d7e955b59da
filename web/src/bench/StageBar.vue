<script setup lang="ts">
import type { Effect } from '@jinx/core/document';
import { computed, inject } from 'vue';
import type { AssetSummary } from '../api';
import { useEffectStore } from '../stores/effect';
import { ENGINE } from './bench';
import MenuButton from './MenuButton.vue';

/** What stands on the stage and in what light. */
const props = defineProps<{ assets: readonly AssetSummary[]; kit: readonly string[]; isImporting: string }>();
const emit = defineEmits<{ importKit: [file: string]; importFile: [file: File] }>();
const engine = inject(ENGINE)!;
const store = useEffectStore();
const stage = computed(() => store.effect!.stage);
const SURROUNDS = ['dusk', 'overcast', 'noon'] as const;
const clips = computed(() => engine.rig.value?.clips.map(({ name }) => name) ?? []);
/** Kit files that the project has not taken in yet, by name. */
const offered = computed(() =>
  props.kit.filter((file) => !props.assets.some(({ name }) => `${name.toLowerCase()}.glb` === file)),
);

const set = (label: string, recipe: (draft: Effect['stage']) => void) =>
  store.change(label, (draft) => recipe(draft.stage));

function chooseFigure(event: Event): void {
  const { value } = event.target as HTMLSelectElement;
  set(
    'choose the figure',
    (draft) => (draft.figure = value ? { asset: value, clip: '', path: { kind: 'spot' } } : null),
  );
}
/** What can be brought in: the kit's figures that are not here yet, and any file. */
const brought = computed(() => [
  ...offered.value.map((file) => ({ value: file, text: `${file.replace('.glb', '')}, from the Fenlight kit` })),
  { value: '', text: 'a .glb file…' },
]);
const bring = (file: string) => (file ? emit('importKit', file) : picker());
function picker(): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = '.glb';
  input.onchange = () => input.files?.[0] && emit('importFile', input.files[0]);
  input.click();
}
const chooseClip = (event: Event) =>
  set('choose the clip', (draft) => draft.figure && (draft.figure.clip = (event.target as HTMLSelectElement).value));
const choosePath = (event: Event) =>
  set('choose the way', (draft) => {
    if (draft.figure)
      draft.figure.path =
        (event.target as HTMLSelectElement).value === 'circle' ? { kind: 'circle', radius: 3 } : { kind: 'spot' };
  });
</script>

<template>
  <div class="bar">
    <div role="group" aria-label="Surround">
      <button
        v-for="name in SURROUNDS"
        :key="name"
        type="button"
        class="plain"
        :class="{ on: stage.surround === name }"
        :aria-pressed="stage.surround === name"
        @click="set('choose the surround', (draft) => (draft.surround = name))"
      >
        {{ name[0]!.toUpperCase() + name.slice(1) }}
      </button>
    </div>
    <div class="figure">
      <select
        class="chip"
        :value="stage.figure?.asset ?? ''"
        aria-label="figure"
        title="The figure on the stage"
        @change="chooseFigure"
      >
        <option value="">No figure</option>
        <option v-for="asset in assets" :key="asset.hash" :value="asset.hash">{{ asset.name }}</option>
      </select>
      <template v-if="stage.figure">
        <select
          class="chip"
          :value="stage.figure.clip"
          aria-label="clip"
          title="What the figure does"
          @change="chooseClip"
        >
          <option value="">stands</option>
          <option v-for="clip in clips" :key="clip" :value="clip">{{ clip }}</option>
        </select>
        <select
          class="chip"
          :value="stage.figure.path.kind"
          aria-label="way"
          title="Where the figure goes"
          @change="choosePath"
        >
          <option value="spot">on the spot</option>
          <option value="circle">round a 3 m circle</option>
        </select>
      </template>
      <MenuButton label="Bring…" :choices="brought" title="Another figure" @choose="bring" />
      <span v-if="isImporting" class="quiet" role="status">{{ isImporting }}</span>
    </div>
  </div>
</template>

<style scoped>
.bar {
  position: absolute;
  top: 8px;
  left: 10px;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  padding: 2px 6px;
  border-radius: 4px;
  background: #101011b8;
}
.bar .plain {
  padding: 2px 5px;
}
.chip {
  background: #2a2a2dcc;
}
</style>
