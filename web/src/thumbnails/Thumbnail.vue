<script setup lang="ts">
import { ref, watch } from 'vue';
import PictureCanvas from '../PictureCanvas.vue';

/** A small picture: as it was just made, as the server keeps it, or an empty place where there is none yet. */
const props = defineProps<{ address?: string | undefined; picture?: ImageBitmap | undefined }>();
const isThere = ref(true);
watch(
  () => props.address,
  () => (isThere.value = true),
);
</script>

<template>
  <PictureCanvas v-if="picture" :picture="picture" class="thumbnail" />
  <img
    v-else-if="address && isThere"
    class="thumbnail"
    :src="address"
    alt=""
    loading="lazy"
    decoding="async"
    @error="isThere = false"
  />
  <span v-else class="thumbnail" aria-hidden="true"></span>
</template>

<style scoped>
.thumbnail {
  display: inline-block;
  border-radius: 3px;
  background: var(--deep);
  object-fit: cover;
}
</style>
