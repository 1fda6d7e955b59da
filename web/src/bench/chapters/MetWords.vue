<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { surfacesFor, withoutItem } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { useSurfaceActs } from '../acts/useSurfaceActs';
import MuteButton from '../chips/MuteButton.vue';
import MenuButton from '../chips/MenuButton.vue';
import SurfaceWords from './SurfaceWords.vue';
import { SURFACE_NAMES } from './surfaceWords';

/** What the chosen layer's particles meet: surfaces of the effect's own. */
const store = useEffectStore();

const surfaces = computed(() => surfacesFor(store.effect!, store.chosenId));
const { choices, add } = useSurfaceActs();
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
      <MuteButton :muted="item.muted" what="this surface" @mute="mute(id, $event)" />
      <Button
        type="text"
        title="Remove this surface"
        :aria-label="`Remove ${SURFACE_NAMES[item.kind]}`"
        @click="remove(id)"
      >
        ×
      </Button>
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
