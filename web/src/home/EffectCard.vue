<script setup lang="ts">
import { api, type EffectSummary } from '../api';
import PictureCanvas from '../PictureCanvas.vue';

/** An effect as its picture, as it is kept or as it was just drawn, and its name. */
defineProps<{ effect: EffectSummary; picture?: ImageBitmap }>();
</script>

<template>
  <RouterLink :to="`/effects/${effect.id}`" class="card">
    <PictureCanvas v-if="picture" :picture="picture" />
    <img
      v-else-if="effect.pictureRevision"
      :src="api.pictureAddress(effect.id, effect.pictureRevision)"
      alt=""
      width="200"
      height="125"
    />
    <span v-else class="blank" aria-hidden="true"></span>
    <span class="name">{{ effect.name }}</span>
    <span v-if="effect.siblingOf" class="quiet of">sibling of {{ effect.siblingOf }}</span>
  </RouterLink>
</template>

<style scoped>
.card {
  width: 200px;
  color: var(--ink);
}
img,
canvas,
.blank {
  display: block;
  width: 200px;
  height: 125px;
  border-radius: 4px;
  background: var(--deep);
}
.card:hover img,
.card:hover canvas {
  box-shadow: 0 0 0 2px var(--accent);
}
.name {
  display: block;
  padding-top: 5px;
}
.card:hover .name {
  color: var(--accent);
}
.of {
  display: block;
}
</style>
