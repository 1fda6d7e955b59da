<script setup lang="ts">
import { api, type EffectSummary } from '../api';
import Thumbnail from '../thumbnails/Thumbnail.vue';
import { when } from '../when';

/** An effect as its thumbnail, as it is kept or as it was just drawn, its name, and when it was worked on. */
defineProps<{ effect: EffectSummary; picture?: ImageBitmap | undefined }>();
</script>

<template>
  <RouterLink :to="`/effects/${effect.id}`" class="card">
    <Thumbnail
      class="picture"
      :picture="picture"
      :address="effect.pictures ? api.pictureAddress(effect.id, effect.pictures) : undefined"
    />
    <span class="name">{{ effect.name }}</span>
    <span class="quiet of">
      <template v-if="effect.siblingOf">sibling of {{ effect.siblingOf }}, </template>{{ when(effect.savedAt) }}
    </span>
  </RouterLink>
</template>

<style scoped>
.card {
  display: block;
  min-width: 0;
  color: var(--ink);
}
.picture {
  display: block;
  width: 100%;
  aspect-ratio: 8 / 5;
}
.card:hover .picture {
  box-shadow: 0 0 0 2px var(--accent);
}
.name,
.of {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.name {
  padding-top: 5px;
}
.of {
  font-size: 12.5px;
}
.card:hover .name {
  color: var(--accent);
}
</style>
