<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { inject } from 'vue';
import { REFERENCE } from '../bench';
import { pickFile } from '../files';

/** A picture or video to compare with. */
const reference = inject(REFERENCE)!;
const choose = () => pickFile('image/*,video/*', (file) => void (reference.value = file));
</script>

<template>
  <p class="quiet">
    A picture or a video of your own, beside the effect or laid over it. A video runs on the effect’s clock.
  </p>
  <p>
    <Button type="primary" @click="choose">{{ reference ? 'Choose another…' : 'Choose one…' }}</Button>
    <Button v-if="reference" type="link" @click="reference = null">Take {{ reference.name }} away</Button>
  </p>
</template>

<style scoped>
.quiet {
  line-height: 18px;
}
</style>
