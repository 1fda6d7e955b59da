<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { inject } from 'vue';
import { REFERENCE } from '../bench';
import { pickFile } from '../files';

/** A picture or video to compare with, kept with the project. */
const { file: reference, set } = inject(REFERENCE)!;
const choose = () => pickFile('image/*,video/*', (file) => void set(file));
</script>

<template>
  <p class="quiet">
    A picture or a video of your own, beside the effect or laid over it. A video runs on the effect’s clock. It is
    kept with the project (up to 32 MB).
  </p>
  <p>
    <Button type="primary" @click="choose">{{ reference ? 'Choose another…' : 'Choose one…' }}</Button>
    <Button v-if="reference" type="link" @click="set(null)">Take {{ reference.name }} away</Button>
  </p>
</template>

<style scoped>
.quiet {
  line-height: 18px;
}
</style>
