<script setup lang="ts">
import { listed } from '@jinx/core/document';
import type { View } from '@jinx/player/scene';
import { Button, Switch } from 'ant-design-vue';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { SHOWN } from '../bench';
import { READY_CAMERAS } from '../stage/alone/useJudging';

/** Where the stage is seen from: ready places, and those that were kept. */
const emit = defineEmits<{ look: [view: View]; keep: [] }>();
const store = useEffectStore();
const { follows } = inject(SHOWN)!;
const kept = computed(() => listed(store.effect!.stage.cameras));
</script>

<template>
  <p>
    <Button v-for="{ name, help, view } in READY_CAMERAS" :key="name" :title="help" @click="emit('look', view)">{{
      name
    }}</Button>
  </p>
  <p v-if="kept.length">
    <Button v-for="{ id, item } in kept" :key="id" @click="emit('look', item)">{{ item.name }}</Button>
  </p>
  <p><Button type="link" @click="emit('keep')">Keep this camera</Button></p>
  <p>It goes with the figure <Switch v-model:checked="follows" aria-label="Follow" size="small" /></p>
  <p class="quiet">
    Drag the picture to orbit. Drag with the right button, or with Shift or Ctrl, to move it aside. Turn the wheel to
    come closer. Enter frames what is chosen.
  </p>
</template>

<style scoped>
p {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
}
.quiet {
  line-height: 18px;
  font-size: 12.5px;
}
</style>
