<script setup lang="ts">
import { emptyCollection, listed, type Layer } from '@jinx/core/document';
import { Button } from 'ant-design-vue';
import { computed } from 'vue';
import { useEffectStore } from '../stores/effect';
import type { TaughtLayer } from './layersOf';

/** Why each layer of a starting point is there. Where the effect is open, a press leaves one out, so that it is seen. */
const props = defineProps<{ layers: readonly TaughtLayer[] }>();
const store = useEffectStore();
const open = computed(
  () => new Map(listed(store.effect?.layers ?? emptyCollection<Layer>()).map(({ id, item }) => [item.name, id])),
);
const known = computed(() => props.layers.filter(({ name }) => open.value.has(name)).length);
const isHidden = (name: string) => store.effect?.layers.byId[open.value.get(name)!]?.hidden === true;
const toggle = (name: string) =>
  store.change(`${isHidden(name) ? 'show' : 'hide'} ${name}`, (draft) => {
    const layer = draft.layers.byId[open.value.get(name)!]!;
    layer.hidden = !layer.hidden;
  });
</script>

<template>
  <h2 id="layers">Layers</h2>
  <p v-if="known === 0" class="quiet">
    Begin with it on the page of a project, under Starting points, and a press here leaves a layer out while you look
    at the effect.
  </p>
  <dl>
    <template v-for="{ name, why, without } in layers" :key="name">
      <dt :class="{ out: isHidden(name) }">
        {{ name }}
        <Button v-if="open.has(name)" type="link" :aria-pressed="isHidden(name)" @click="toggle(name)">
          {{ isHidden(name) ? 'See it again' : 'See without it' }}
        </Button>
      </dt>
      <dd>
        {{ why }} <span class="quiet">Without it: {{ without }}</span>
      </dd>
    </template>
  </dl>
</template>

<style scoped>
dl {
  margin: 0;
}
dt {
  margin-top: 8px;
  font-weight: 650;
}
dt.out {
  color: var(--dim);
}
dd {
  margin: 0;
}
</style>
