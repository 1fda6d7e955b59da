<script setup lang="ts">
import { Button } from 'ant-design-vue';
import type { Group, Vector } from '@jinx/core/document';
import { layersWithin, mayHold } from '@jinx/core/editing';
import { computed, inject } from 'vue';
import { useEffectStore } from '../stores/effect';
import { LAYER_ACTS } from './bench';
import ChoiceChip from './chips/ChoiceChip.vue';
import { GROUP_SCALE } from './handles/knobs';
import LinkedWords from './LinkedWords.vue';
import PlainChip from './chips/PlainChip.vue';
import TextField from './chips/TextField.vue';
import VectorChip from './chips/VectorChip.vue';

/** A group: where it stands, how it is turned, how large it is, and what is in it. */
const store = useEffectStore();
const acts = inject(LAYER_ACTS)!;
const group = computed(() => store.effect!.groups.byId[store.groupId]!);
const layers = computed(() => layersWithin(store.effect!, store.groupId));
const parents = computed(() => [
  { value: '', text: 'no other group' },
  ...store
    .effect!.groups.order.filter((id) => mayHold(store.effect!, id, store.groupId))
    .map((id) => ({ value: id, text: store.effect!.groups.byId[id]!.name })),
]);
const change = (label: string, recipe: (draft: Group) => void, gesture: string | null = null) => {
  const id = store.groupId;
  store.change(
    label,
    (draft) => draft.groups.byId[id] && recipe(draft.groups.byId[id]!),
    gesture && `${gesture} ${id}`,
  );
};
const rename = (text: string) => {
  const name = text.trim().slice(0, 80);
  if (name) change('rename a group', (draft) => (draft.name = name));
};
const move = (to: Vector, gesture: string | null) =>
  change('move a group', (draft) => (draft.translation = to), gesture);
const turn = (to: Vector, gesture: string | null) =>
  change('turn a group', (draft) => (draft.rotation = to), gesture);
const size = (to: number, gesture: string | null) => change('size a group', (draft) => (draft.scale = to), gesture);
</script>

<template>
  <TextField
    :key="store.groupId"
    class="page-name"
    :value="group.name"
    aria-label="group name"
    maxlength="80"
    @commit="rename"
  />
  <div class="page">
    <p>
      It stands at
      <VectorChip
        :value="group.translation"
        label="group stands at"
        unit="m"
        :least="-1000"
        :most="1000"
        @change="move"
      />, turned by
      <VectorChip
        :value="group.rotation"
        label="group turned by"
        unit="°"
        :least="-3600"
        :most="3600"
        @change="turn"
      />, and what is in it is
      <PlainChip
        :value="group.scale"
        label="group size"
        :least="GROUP_SCALE.least"
        :most="GROUP_SCALE.most"
        @change="size"
      />
      times as large: its sizes, speeds, forces and reaches, never its times. What hangs on a bone stays there.
    </p>
    <p>
      It is in
      <ChoiceChip
        :value="group.parent ?? ''"
        :choices="parents"
        label="group is in"
        @choose="acts.putGroup(store.groupId, $event || null)"
      />. Nothing looks otherwise when it, or a layer, is put somewhere else.
    </p>
    <h3>In it</h3>
    <LinkedWords v-if="group.linked" :id="store.groupId" :linked="group.linked" />
    <p v-else-if="layers.length === 0" class="quiet">
      Nothing. Drag rows onto its own below, or choose “put in {{ group.name }}” under More… of a layer.
    </p>
    <p v-for="id in layers" :key="id">
      <Button type="text" @click="store.chosenId = id">
        {{ store.effect!.layers.byId[id]!.name }}
      </Button>
    </p>
    <p class="acts">
      <Button v-if="!group.linked" type="link" title="Shift M" @click="acts.mirrorAll(store.groupId)">
        Mirror left and right
      </Button>
      <Button v-if="!group.linked" type="link" @click="acts.takeApart(store.groupId)"> Take apart </Button>
      <Button type="link" title="Delete" @click="acts.removeGroup(store.groupId)">
        {{ group.linked ? 'Take it away' : 'Delete with its layers' }}
      </Button>
    </p>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
}
</style>
