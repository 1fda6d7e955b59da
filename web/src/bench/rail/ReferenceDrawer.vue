<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { inject } from 'vue';
import { REFERENCE } from '../bench';
import { pickFile } from '../files';

/** A picture or video to compare with, kept with the project and shown when it is asked for. */
const { file, kept, bring, show, remove } = inject(REFERENCE)!;
const choose = () => pickFile('image/*,video/*', (chosen) => void bring(chosen));
</script>

<template>
  <p class="quiet">
    A picture or a video of your own, beside the effect or laid over it. A video runs on the effect’s clock. The
    project keeps one, up to 32 MB.
  </p>
  <p v-if="kept">
    {{ kept }}
    <Button v-if="file" type="link" @click="file = null">Hide it</Button>
    <Button v-else type="link" @click="show">Show it</Button>
    <Button
      type="text"
      :aria-label="`Take ${kept} out of the project`"
      title="Take it out of the project"
      @click="remove"
    >
      ×
    </Button>
  </p>
  <p>
    <Button :type="kept ? 'default' : 'primary'" @click="choose">{{
      kept ? 'Choose another…' : 'Choose one…'
    }}</Button>
  </p>
</template>

<style scoped>
.quiet {
  line-height: 18px;
}
</style>
