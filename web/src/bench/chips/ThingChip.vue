<script setup lang="ts">
import { withoutItem, type Thing, type Vector } from '@jinx/core/document';
import { computed, inject, ref } from 'vue';
import type { AssetSummary } from '../../api';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { isPickingIn } from '../pick/pick';
import ChoiceChip from './ChoiceChip.vue';
import PlainChip from './PlainChip.vue';
import VectorChip from './VectorChip.vue';

/** A figure or prop on the stage: what it is, what it does, where it stands. */
const props = defineProps<{ id: string; thing: Thing; assets: readonly AssetSummary[] }>();
const engine = inject(ENGINE)!;
const store = useEffectStore();
const isOpen = ref(false);
const root = ref<HTMLElement>();
const clips = computed(() => engine.rigs.value.get(props.id)?.clips.map(({ name }) => name) ?? []);

const set = (label: string, recipe: (thing: Thing) => void, gesture: string | null = null) =>
  store.change(label, (draft) => recipe(draft.stage.things.byId[props.id]!), gesture);
const CLIPLESS = { value: '', text: 'stands' };
const clipChoices = computed(() => [CLIPLESS, ...clips.value.map((clip) => ({ value: clip, text: clip }))]);
const figures = computed(() => props.assets.map(({ hash, name }) => ({ value: hash, text: name })));
const WAYS = [
  { value: 'spot', text: 'on the spot' },
  { value: 'circle', text: 'round a circle' },
];

const chooseAsset = (asset: string) =>
  set('choose what stands there', (thing) => {
    thing.asset = asset;
    thing.name = props.assets.find(({ hash }) => hash === thing.asset)?.name ?? thing.name;
    thing.clip = '';
  });
const chooseClip = (clip: string) => set('choose the clip', (thing) => (thing.clip = clip));
const choosePath = (kind: string) =>
  set(
    'choose the way',
    (thing) => (thing.path = kind === 'circle' ? { kind: 'circle', radius: 3 } : { kind: 'spot' }),
  );
const move = (at: Vector, gesture: string | null) => set('move a thing', (thing) => (thing.at = at), gesture);
const takeAway = () =>
  store.change('take a thing off the stage', (draft) => {
    draft.stage.things = withoutItem(draft.stage.things, props.id);
  });
function leave(event: FocusEvent): void {
  if (!root.value?.contains(event.relatedTarget as Node) && !isPickingIn(root.value)) isOpen.value = false;
}
</script>

<template>
  <span ref="root" class="holder" @focusout="leave" @keydown.esc.stop="isOpen = false">
    <button
      type="button"
      class="chip"
      :aria-expanded="isOpen"
      :title="`${thing.name}: what it does and where it stands`"
      @click="isOpen = !isOpen"
    >
      {{ thing.name }}
    </button>
    <ChoiceChip :value="thing.clip" :choices="clipChoices" label="clip" previews @choose="chooseClip" />
    <span v-if="isOpen" class="drawer" role="group" :aria-label="thing.name" tabindex="-1">
      <span>
        This is
        <ChoiceChip :value="thing.asset" :choices="figures" label="figure" previews @choose="chooseAsset" />
      </span>
      <span>
        It goes
        <ChoiceChip :value="thing.path.kind" :choices="WAYS" label="way" previews @choose="choosePath" />
        <template v-if="thing.path.kind === 'circle'">
          of
          <PlainChip
            :value="thing.path.radius"
            label="radius of the way"
            unit="m"
            :least="0.2"
            :most="1000"
            @change="
              (radius, gesture) => set('change the way', (own) => (own.path = { kind: 'circle', radius }), gesture)
            "
          />
        </template>
      </span>
      <span>
        It stands at
        <VectorChip :value="thing.at" label="stands at" unit="m" :least="-1000" :most="1000" @change="move" />
      </span>
      <span>
        turned by
        <PlainChip
          :value="thing.facing"
          label="turned by"
          unit="°"
          :least="-360"
          :most="360"
          @change="(facing, gesture) => set('turn a thing', (own) => (own.facing = facing), gesture)"
        />,
        <PlainChip
          :value="thing.scale"
          label="how large"
          unit="×"
          :least="0.01"
          :most="100"
          @change="(scale, gesture) => set('scale a thing', (own) => (own.scale = scale), gesture)"
        />
        as large, its clip begun at
        <PlainChip
          :value="thing.from"
          label="clip begins at"
          unit="s"
          :least="0"
          :most="3600"
          @change="(from, gesture) => set('start a clip elsewhere', (own) => (own.from = from), gesture)"
        />
      </span>
      <button type="button" class="plain act" @click="takeAway">Take it off the stage</button>
    </span>
  </span>
</template>

<style scoped>
.holder {
  position: relative;
  display: inline-block;
}
.chip {
  background: #2a2a2dcc;
}
.drawer {
  position: absolute;
  z-index: 40;
  top: 28px;
  left: 0;
  width: 330px;
  padding: 8px 10px;
  background: #232326;
  border: 1px solid #434347;
  border-radius: 4px;
  box-shadow: 0 6px 18px #000a;
  display: flex;
  flex-direction: column;
  gap: 5px;
  font-size: 13px;
}
</style>
