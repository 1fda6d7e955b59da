<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { listed, withItem, withoutItem, type Id } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { inOrder } from '../chips/dragging';
import DraggedList from '../chips/DraggedList.vue';
import DragGrip from '../chips/DragGrip.vue';
import TextField from '../chips/TextField.vue';

/** Cameras that were kept above the stage. The effect opens with the first, and is pictured from there. */
const store = useEffectStore();
const cameras = computed(() => listed(store.effect!.stage.cameras));
function rename(id: string, name: string): void {
  const plain = name.trim().slice(0, 80);
  if (plain) store.change('rename a camera', (draft) => (draft.stage.cameras.byId[id]!.name = plain));
}
const drop = (id: string) =>
  store.change('take a camera away', (draft) => (draft.stage.cameras = withoutItem(draft.stage.cameras, id)));
const first = (id: string) =>
  store.change('open with a camera', (draft) => {
    const kept = draft.stage.cameras;
    draft.stage.cameras = withItem(withoutItem(kept, id), id, kept.byId[id]!, 0);
  });
const order = (to: Id[]) =>
  store.change('order cameras', (draft) => (draft.stage.cameras = inOrder(draft.stage.cameras, to)));
</script>

<template>
  <p v-if="cameras.length === 0" class="quiet">
    Turn the stage as you want it seen and press “Keep this camera” under Camera in the rail: the effect opens so.
  </p>
  <DraggedList :all="store.effect!.stage.cameras" @order="order">
    <p v-for="({ id, item }, n) in cameras" :key="id">
      <DragGrip :id="id" :name="item.name" :all="store.effect!.stage.cameras" @order="order" />
      <TextField class="chip name" :value="item.name" aria-label="name of the camera" @commit="rename(id, $event)" />
      <span v-if="n === 0" class="quiet"> opens the effect, and is its picture</span>
      <Button v-else type="link" @click="first(id)">Open with it</Button>
      <Button type="text" :aria-label="`Take ${item.name} away`" @click="drop(id)">×</Button>
    </p>
  </DraggedList>
</template>

<style scoped>
.name {
  width: 120px;
  cursor: text;
}
</style>
