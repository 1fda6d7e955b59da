<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { listed, withoutItem, type Link } from '@jinx/core/document';
import { momentToSetOff } from '@jinx/core/editing';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { useLinkActs } from '../acts/useLinkActs';
import ActChip from '../chips/ActChip.vue';
import MuteButton from '../chips/MuteButton.vue';
import ChoiceChip from '../chips/ChoiceChip.vue';
import ChapterHead from './ChapterHead.vue';
import { layersAfter } from '../values/linkable';
import MenuButton from '../chips/MenuButton.vue';
import LinkWords from './LinkWords.vue';

const store = useEffectStore();
const layer = computed(() => store.chosen!);
const population = computed(() => layer.value.population);
const links = computed(() => listed(layer.value.links));

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
const choose = (id: string) =>
  store.changeLayer(
    'choose the population',
    (target) => (target.population = id ? { kind: 'follows', layer: id } : { kind: 'own' }),
  );

const others = computed(() => layersAfter(store.effect!, store.chosenId));
const WHEN = {
  birth: 'are born',
  death: 'die',
  hit: 'hit a surface',
  along: 'are on their way',
  release: 'are freed',
};
/** What sets births off here, by other layers' links. */
const incoming = computed(() =>
  listed(store.effect!.layers).flatMap(({ id, item }) =>
    listed(item.links)
      .filter((link) => link.item.layer === store.chosenId && !link.item.muted)
      .map((link) => ({ id: `${id}/${link.id}`, from: id, name: item.name, when: WHEN[link.item.on] })),
  ),
);

const { setOff: add, setOffNew: addNew } = useLinkActs();
const NEW = 'a new layer';
const SET_OFF_WORDS = { hit: 'hit', death: 'die', birth: 'are born' };
const offered = computed(() => [
  {
    value: NEW,
    text: `a new layer, where they ${SET_OFF_WORDS[momentToSetOff(store.effect!, store.chosenId)]}`,
    help: 'A few short-lived particles in their colour; all of it can be changed',
  },
  ...others.value,
]);
const remove = (id: string) => store.changeLayer('remove a link', (own) => (own.links = withoutItem(own.links, id)));
const mute = (id: string, muted: boolean) =>
  store.changeLayer(muted ? 'mute a link' : 'unmute a link', (own) => {
    (own.links.byId[id] as Link).muted = muted;
  });
</script>

<template>
  <ChapterHead chapter="links">
    <MenuButton
      v-if="population.kind === 'own'"
      label="Set off…"
      :choices="offered"
      previews
      @choose="$event === NEW ? addNew() : add($event)"
    />
  </ChapterHead>
  <p>
    Its particles are
    <ChoiceChip
      :value="population.kind === 'own' ? '' : population.layer"
      :choices="choices"
      label="population"
      previews
      @choose="choose"
    /><span v-if="population.kind === 'own' && links.length === 0" class="quiet">; they set nothing off</span>.
  </p>
  <template v-if="population.kind === 'own'">
    <p v-for="{ id, item } in links" :key="id" class="force" :class="{ muted: item.muted }" :data-link="item.on">
      <LinkWords :id="id" :link="item" :others="others" />
      <span class="acts">
        <MuteButton :muted="item.muted" what="this link" @mute="mute(id, $event)" />
        <Button type="text" title="Remove this link" aria-label="Remove this link" @click="remove(id)"> × </Button>
      </span>
    </p>
    <template v-if="incoming.length > 0">
      <p v-for="{ id, from, name, when } in incoming" :key="id">
        Set off by
        <ActChip :title="`Choose ${name}`" @click="store.chosenId = from">
          {{ name }}
        </ActChip>
        when they {{ when }}.
      </p>
    </template>
  </template>
</template>

<style scoped>
.acts {
  opacity: 0.8;
  white-space: nowrap;
  font-size: 12.5px;
  text-decoration: none;
  display: inline-block;
}
.force:hover .acts,
.force:focus-within .acts {
  opacity: 1;
}
</style>
