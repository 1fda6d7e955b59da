<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { linkEffect } from '@jinx/core/editing';
import { listed } from '@jinx/core/document';
import { computed, onMounted, shallowRef } from 'vue';
import { api, type EffectSummary } from '../../api';
import { useEffectStore } from '../../stores/effect';
import { tell } from '../../tell';
import MenuButton from '../chips/MenuButton.vue';

/** Other effects that stand in this one, each as a group. */
const store = useEffectStore();
const effects = shallowRef<readonly EffectSummary[]>([]);
const linked = computed(() => listed(store.effect!.groups).filter(({ item }) => item.linked !== null));
onMounted(async () => {
  try {
    effects.value = (await api.project(store.projectId)).effects.filter(({ id }) => id !== store.id);
  } catch (error) {
    tell(error);
  }
});
const choices = computed(() => effects.value.map(({ id, name }) => ({ value: id, text: name })));
async function link(of: string): Promise<void> {
  try {
    const { document } = await api.effect(of);
    const id = store.newId();
    store.change(`link ${document.name}`, (draft) => linkEffect(draft, id, of, document));
    store.chooseGroup(id);
  } catch (error) {
    tell(error);
  }
}
</script>

<template>
  <p v-for="{ id, item } in linked" :key="id">
    <Button type="link" @click="store.chooseGroup(id)">{{ item.name }}</Button>
    <span class="quiet"> is {{ item.linked!.effect.name }}</span>
  </p>
  <p>
    Another effect can stand in this one as it is: when it is changed, it is changed here.
    <MenuButton label="Link an effect…" :choices="choices" @choose="link" />
  </p>
</template>
