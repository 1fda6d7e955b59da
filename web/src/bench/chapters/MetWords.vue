<script setup lang="ts">
import {
  inWorld,
  listed,
  newSurface,
  SURFACE_KINDS,
  surfacesFor,
  withItem,
  withoutItem,
  type Surface,
} from '@jinx/core/document';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ASSETS } from '../bench';
import MenuButton from '../MenuButton.vue';
import SurfaceWords from './SurfaceWords.vue';
import { SURFACE_NAMES } from './surfaceWords';

/** What the chosen layer's particles meet: surfaces of the effect's own. */
const store = useEffectStore();
const assets = inject(ASSETS)!;

const surfaces = computed(() => surfacesFor(store.effect!, store.chosenId));
/** A thing of the stage or a mesh of the project is offered by its name, nothing to be chosen twice. */
const choices = computed(() => [
  ...SURFACE_KINDS.filter((kind) => !['thing', 'mesh', 'layer'].includes(kind)).map((kind) => ({
    value: kind as string,
    text: SURFACE_NAMES[kind],
  })),
  ...listed(store.effect!.stage.things).map(({ id, item }) => ({
    value: `thing/${id}`,
    text: `${item.name}’s body`,
  })),
  ...listed(store.effect!.layers)
    .filter(({ id, item }) => id !== store.chosenId && item.drawn.kind === 'mesh')
    .map(({ id, item }) => ({ value: `layer/${id}`, text: `The mesh of ${item.name}` })),
  ...assets.value
    .filter(({ kind }) => kind === 'rig')
    .map(({ hash, name }) => ({ value: `mesh/${hash}`, text: `${name} as a mesh of the effect’s own` })),
]);
function made(chosen: string): Surface {
  const [kind, of = ''] = chosen.split('/');
  if (kind === 'thing') return newSurface('thing', { thing: of });
  if (kind === 'layer') return newSurface('layer', { layer: of });
  if (kind === 'mesh') {
    const name = assets.value.find(({ hash }) => hash === of)?.name ?? 'mesh';
    return newSurface('mesh', { place: inWorld(), asset: of, name });
  }
  if (kind === 'ground') return newSurface('ground', { place: inWorld() });
  const place = inWorld([0, kind === 'box' ? 0.5 : 1, 0]);
  return kind === 'sphere' ? newSurface('sphere', { place }) : newSurface('box', { place });
}
const add = (chosen: string) =>
  store.change('add a surface', (draft) => {
    const surface = made(chosen);
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
  <h3>What they meet</h3>
  <p v-if="surfaces.length === 0" class="quiet">Nothing: they pass through everything.</p>
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
  <p><MenuButton label="Add a surface" :choices="choices" @choose="add" /></p>
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
