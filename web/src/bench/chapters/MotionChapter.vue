<script setup lang="ts">
import {
  FORCE_KINDS,
  listed,
  newForce,
  withItem,
  withoutItem,
  type ForceKind,
  type Place,
  type Vector,
} from '@jinx/core/document';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import ChoiceChip from '../ChoiceChip.vue';
import MenuButton from '../MenuButton.vue';
import NumberChip from '../NumberChip.vue';
import VectorChip from '../VectorChip.vue';
import ForceWords from './ForceWords.vue';

const store = useEffectStore();
const engine = inject(ENGINE)!;
const layer = computed(() => store.chosen!);
const forces = computed(() => listed(layer.value.forces));
const launch = computed(() => layer.value.settings['motion.launch'].base.value);
const axis = computed(() => layer.value.settings['motion.axis'].base);
const NAMES: Record<ForceKind, string> = {
  gravity: 'Gravity',
  drag: 'Drag',
  attraction: 'Attraction',
  vortex: 'Vortex',
  curl: 'Curl noise',
};

const setLaunch = (value: string) =>
  store.changeLayer(
    'choose the launch',
    (target) => (target.settings['motion.launch'].base = { kind: 'fixed', value }),
  );
const setAxis = (value: Vector, gesture: string | null) =>
  store.changeLayer(
    'turn the launch axis',
    (target) => (target.settings['motion.axis'].base = { kind: 'fixed', value }),
    gesture,
  );

/** A new force that needs a place stands where another already does, else over the figure, else in the middle. */
function placeForNew(): Place {
  const other = forces.value.find(({ item }) => item.kind === 'attraction' || item.kind === 'vortex');
  if (other) return other.item.place;
  const bone = engine.rig.value?.bones.find(({ name }) => name === 'chest')?.name;
  return bone ? { kind: 'bone', bone, offset: [0.35, 0.45, -0.1] } : { kind: 'effect', offset: [0, 1.5, 0] };
}
function add(kind: string): void {
  store.changeLayer(`add ${NAMES[kind as ForceKind].toLowerCase()}`, (target) => {
    target.forces = withItem(target.forces, store.newId(), newForce(kind as ForceKind, placeForNew()));
  });
}
const remove = (id: string) =>
  store.changeLayer('remove a force', (target) => (target.forces = withoutItem(target.forces, id)));
const mute = (id: string) =>
  store.changeLayer('mute a force', (target) => (target.forces.byId[id]!.muted = !target.forces.byId[id]!.muted));
</script>

<template>
  <h3>How they leave</h3>
  <p>
    They leave
    <ChoiceChip
      :value="launch"
      :choices="[
        { value: 'outward', text: 'outward' },
        { value: 'normal', text: 'along the normal' },
        { value: 'axis', text: 'along an axis' },
      ]"
      label="launch"
      @choose="setLaunch"
    />
    <VectorChip
      v-if="launch === 'axis' && axis.kind === 'fixed'"
      :value="axis.value"
      label="launch axis"
      :least="-1"
      :most="1"
      @change="setAxis"
    />
    at <NumberChip setting="motion.speed" />, up to <NumberChip setting="motion.opening" /> aside, keeping
    <NumberChip setting="motion.inherit" /> of the source's own speed.
  </p>
  <p>They ride along <NumberChip setting="motion.ride" />.</p>
  <h3>What moves them then</h3>
  <p v-if="forces.length === 0" class="quiet">Nothing: they keep the speed they left with.</p>
  <p v-for="{ id, item } in forces" :key="id" class="force" :class="{ muted: item.muted }" :data-force="item.kind">
    <ForceWords :id="id" :force="item" />
    <span class="acts">
      <button type="button" class="plain" :title="item.muted ? 'Unmute' : 'Mute'" @click="mute(id)">
        {{ item.muted ? 'unmute' : 'mute' }}
      </button>
      <button
        type="button"
        class="plain"
        title="Remove this force"
        :aria-label="`Remove ${NAMES[item.kind]}`"
        @click="remove(id)"
      >
        ×
      </button>
    </span>
  </p>
  <p>
    <MenuButton
      label="Add a force"
      :choices="FORCE_KINDS.map((kind) => ({ value: kind, text: NAMES[kind] }))"
      @choose="add"
    />
  </p>
</template>

<style scoped>
.force .acts {
  opacity: 0.8;
  white-space: nowrap;
  font-size: 12.5px;
  text-decoration: none;
  display: inline-block;
}
.force:hover .acts,
.force:focus-within .acts {
  opacity: 1;
}
</style>
