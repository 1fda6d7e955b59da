<script setup lang="ts">
import { listed } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ChoiceChip from '../ChoiceChip.vue';

const store = useEffectStore();
const population = computed(() => store.chosen!.population);

/** Layers this one may follow: those that do not, by any way, follow it. */
const choices = computed(() => {
  const { layers } = store.effect!;
  const leadsHere = (id: string): boolean => {
    for (let at = id, n = 0; n <= layers.order.length; n++) {
      if (at === store.chosenId) return true;
      const next = layers.byId[at]!.population;
      if (next.kind === 'own') return false;
      at = next.layer;
    }
    return true;
  };
  return [
    { value: '', text: 'its own' },
    ...listed(layers)
      .filter(({ id }) => !leadsHere(id))
      .map(({ id, item }) => ({ value: id, text: `those of ${item.name}` })),
  ];
});
const choose = (layer: string) =>
  store.changeLayer(
    'choose the population',
    (target) => (target.population = layer ? { kind: 'follows', layer } : { kind: 'own' }),
  );
</script>

<template>
  <p>
    Its particles are
    <ChoiceChip
      :value="population.kind === 'own' ? '' : population.layer"
      :choices="choices"
      label="population"
      @choose="choose"
    />.
  </p>
  <p class="quiet">
    {{
      population.kind === 'own'
        ? 'A layer can show another layer’s particles again, dressed differently: a glow on every spark.'
        : 'Source, births and motion are the followed layer’s; life and appearance are its own.'
    }}
  </p>
</template>
