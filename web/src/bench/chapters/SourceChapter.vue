<script setup lang="ts">
import { type Layer, type Place, type Source, type SourceKind, type Vector } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import ChoiceChip from '../ChoiceChip.vue';
import MenuButton from '../MenuButton.vue';
import NumberChip from '../NumberChip.vue';
import PlaceWords from '../PlaceWords.vue';
import VectorChip from '../VectorChip.vue';

const store = useEffectStore();
const engine = inject(ENGINE)!;
const layer = computed(() => store.chosen!);
const source = computed(() => layer.value.source);
const bones = computed(() => engine.rig.value?.bones.map(({ name }) => name) ?? []);
const kinds = [
  { value: 'point', text: 'at a point' },
  { value: 'ring', text: 'along a ring' },
  { value: 'sphere', text: 'round a sphere' },
  { value: 'bone', text: 'at a bone of the figure' },
  { value: 'surface', text: "on the figure's skin" },
];

function choose(kind: SourceKind): void {
  store.changeLayer('choose the source', (target) => {
    const place: Place = 'place' in target.source ? target.source.place : { kind: 'effect', offset: [0, 1, 0] };
    const bone = bones.value[0] ?? '';
    const made: Record<SourceKind, Source> = {
      point: { kind: 'point', place },
      ring: { kind: 'ring', place },
      sphere: { kind: 'sphere', place },
      bone: { kind: 'bone', bone },
      surface: { kind: 'surface', bones: [] },
    };
    target.source = made[kind];
  });
}
const set = (label: string, recipe: (target: Layer) => void, gesture: string | null = null) =>
  store.changeLayer(label, recipe, gesture);
const setPlace = (place: Place, gesture: string | null) =>
  set('place the source', (target) => 'place' in target.source && (target.source.place = place), gesture);
const setBone = (bone: string) => set('choose the bone', (target) => (target.source = { kind: 'bone', bone }));
const offset = computed(() => layer.value.settings['source.offset'].base);
const setOffset = (value: Vector, gesture: string | null) =>
  set('move the source', (target) => (target.settings['source.offset'].base = { kind: 'fixed', value }), gesture);
const isOnGround = computed(() => layer.value.settings['source.ground'].base.value);
const setGround = (value: string) =>
  set(
    'drop the source',
    (target) => (target.settings['source.ground'].base = { kind: 'fixed', value: value === 'ground' }),
  );
const keptBones = computed(() => (source.value.kind === 'surface' ? source.value.bones : []));
const otherBones = computed(() => bones.value.filter((bone) => !keptBones.value.includes(bone)));
const keep = (names: string[]) =>
  set('choose the skin', (target) => (target.source = { kind: 'surface', bones: names }));
</script>

<template>
  <p>
    Born <ChoiceChip :value="source.kind" :choices="kinds" label="source" @choose="choose($event as SourceKind)" />
    <template v-if="source.kind === 'bone'">
      ,
      <ChoiceChip
        :value="source.bone"
        :choices="[...new Set([source.bone, ...bones])].map((bone) => ({ value: bone, text: bone || 'none' }))"
        label="bone"
        @choose="setBone"
      />, moved by
      <VectorChip
        v-if="offset.kind === 'fixed'"
        :value="offset.value"
        label="source moved by"
        unit="m"
        :least="-100"
        :most="100"
        @change="setOffset"
      /> </template
    >.
  </p>
  <p v-if="'place' in source">
    It stands at <PlaceWords :place="source.place" label="source place" @change="setPlace" />.
  </p>
  <p v-if="source.kind === 'ring' || source.kind === 'sphere'">
    Its radius is <NumberChip setting="source.radius" />, filled to a depth of <NumberChip setting="source.depth" />.
  </p>
  <template v-if="source.kind === 'surface'">
    <p v-if="!engine.rig.value" class="quiet">
      No figure stands on the stage yet: choose one above the stage, and its skin is the source.
    </p>
    <p v-else>
      Kept to the skin of
      <template v-if="keptBones.length === 0">the <span class="chip">whole body</span></template>
      <button
        v-for="bone in keptBones"
        :key="bone"
        type="button"
        class="chip"
        :title="`Leave ${bone} out`"
        @click="keep(keptBones.filter((other) => other !== bone))"
      >
        {{ bone }} ×
      </button>
      <MenuButton
        :label="keptBones.length ? 'and…' : 'or only…'"
        :choices="otherBones.map((bone) => ({ value: bone, text: bone }))"
        @choose="keep([...keptBones, $event])"
      />
    </p>
  </template>
  <p>
    Births happen
    <ChoiceChip
      :value="isOnGround ? 'ground' : 'there'"
      :choices="[
        { value: 'there', text: 'right there' },
        { value: 'ground', text: 'on the ground below' },
      ]"
      label="dropped to the ground"
      @choose="setGround"
    />, at heights up to <NumberChip setting="source.below" />.
  </p>
</template>
