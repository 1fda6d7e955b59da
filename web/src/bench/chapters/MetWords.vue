<script setup lang="ts">
import { inWorld, listed, newSurface, surfacesFor, withItem, withoutItem, type Surface } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ASSETS } from '../bench';
import MenuButton from '../chips/MenuButton.vue';
import SurfaceWords from './SurfaceWords.vue';
import { SURFACE_NAMES } from './surfaceWords';

/** What the chosen layer's particles meet: surfaces of the effect's own. */
const store = useEffectStore();
const assets = inject(ASSETS)!;

const surfaces = computed(() => surfacesFor(store.effect!, store.chosenId));
/** Surfaces that are a shape, and how high their middles stand at first. */
const PLAIN = ['ground', 'sphere', 'box'] as const;
const HEIGHTS = { ground: 0, sphere: 1, box: 0.5 };
/** A thing of the stage or a mesh of the project is offered by its name, nothing to be chosen twice. */
const choices = computed(() => [
  ...PLAIN.map((kind) => ({
    value: kind as string,
    text: SURFACE_NAMES[kind],
    make: () => newSurface(kind, { place: inWorld([0, HEIGHTS[kind], 0]) }) as Surface,
  })),
  ...listed(store.effect!.stage.things).map(({ id, item }) => ({
    value: `thing ${id}`,
    text: `${item.name}’s body`,
    make: (): Surface => newSurface('thing', { thing: id }),
  })),
  ...listed(store.effect!.layers)
    .filter(({ id, item }) => id !== store.chosenId && item.drawn.kind === 'mesh')
    .map(({ id, item }) => ({
      value: `layer ${id}`,
      text: `The mesh of ${item.name}`,
      make: (): Surface => newSurface('layer', { layer: id }),
    })),
  ...assets.value
    .filter(({ kind }) => kind === 'rig')
    .map(({ hash, name }) => ({
      value: `mesh ${hash}`,
      text: `${name} as a mesh of the effect’s own`,
      make: (): Surface => newSurface('mesh', { place: inWorld(), asset: hash, name }),
    })),
]);
const add = (chosen: string) =>
  store.change('add a surface', (draft) => {
    const surface = choices.value.find(({ value }) => value === chosen)!.make();
    // A surface holds for all layers only where there is but one.
    if (draft.layers.order.length > 1) surface.layers = [store.chosenId];
    draft.surfaces = withItem(draft.surfaces, store.newId(), surface);
  });
const remove = (id: string) =>
  store.change('remove a surface', (draft) => (draft.surfaces = withoutItem(draft.surfaces, id)));
const mute = (id: string, muted: boolean) =>
  store.change(muted ? 'mute a surface' : 'unmute a surface', (draft) => {
    draft.surfaces.byId[id]!.muted = muted;
  });
</script>

<template>
  <p
    v-for="{ id, item } in surfaces"
    :key="id"
    class="force"
    :class="{ muted: item.muted }"
    :data-surface="item.kind"
  >
    <SurfaceWords :id="id" :surface="item" />
    <span class="acts">
      <button type="button" class="plain" :title="item.muted ? 'Unmute' : 'Mute'" @click="mute(id, !item.muted)">
        {{ item.muted ? 'unmute' : 'mute' }}
      </button>
      <button
        type="button"
        class="plain"
        title="Remove this surface"
        :aria-label="`Remove ${SURFACE_NAMES[item.kind]}`"
        @click="remove(id)"
      >
        ×
      </button>
    </span>
  </p>
  <p>
    <span v-if="surfaces.length === 0" class="quiet">They meet nothing. </span>
    <MenuButton label="Add a surface" :choices="choices" previews @choose="add" />
  </p>
</template>

<style scoped>
.acts {
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
