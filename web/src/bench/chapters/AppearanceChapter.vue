<script setup lang="ts">
import { listed } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ChoiceChip from '../chips/ChoiceChip.vue';
import SettingChip from '../chips/SettingChip.vue';
import ChapterHead from './ChapterHead.vue';
import LookWords from './looks/LookWords.vue';
import DrawnWords from './looks/DrawnWords.vue';

const store = useEffectStore();
const layer = computed(() => store.chosen!);
const value = (name: 'appearance.facing' | 'appearance.blend' | 'appearance.lit') =>
  String(layer.value.settings[name].base.value);
const NOTES: Record<string, string> = {
  additive: 'Added light never darkens: on a bright surround it is lost. Covering shows everywhere.',
  normal: 'Covering hides what is behind by the opacity.',
  mixed: 'The part that covers shows on bright ground, the part that adds in the dark.',
  multiply: 'What is behind is multiplied by its colour: white changes nothing, black hides all.',
  solid: 'What is solid stands among the other solid things; opacity fades it grain by grain.',
  holes: 'What is solid stands among the other solid things; opacity fades it grain by grain.',
};
const kind = computed(() => layer.value.drawn.kind);
/** Kinds whose particles stand each by itself. */
const stands = computed(() => kind.value === 'sprite' || kind.value === 'mesh' || kind.value === 'haze');
const isSprite = computed(() => kind.value === 'sprite');
const isFlat = computed(() => ['ground', 'own frame'].includes(value('appearance.facing')));
const hasLook = computed(() => kind.value !== 'light');
/** Bent air mixes with nothing: it shows what is behind. */
const isMixed = computed(() => hasLook.value && kind.value !== 'haze');
const wraps = computed(() => isFlat.value && layer.value.settings['appearance.wraps'].base.value);
const insides = computed(() => [
  { value: '', text: 'everywhere' },
  ...listed(store.effect!.layers)
    .filter(({ id }) => id !== store.chosenId)
    .map(({ id, item }) => ({ value: id, text: `only inside ${item.name}` })),
]);
/** Switches among the dials by which it may be seen. */
const switches = computed(() => [
  { value: '', text: 'always' },
  ...listed(store.effect!.dials)
    .filter(({ item }) => item.kind === 'switch')
    .map(({ id, item }) => ({ value: id, text: `while ${item.name} is on` })),
]);
const setSeenBy = (id: string) =>
  store.changeLayers('choose when layers are seen', (target) => (target.seenBy = id === '' ? null : id));
const setInside = (id: string) =>
  store.changeLayers('choose where layers are seen', (target, layerId) => {
    if (id !== layerId) target.inside = id === '' ? null : id;
  });
</script>

<template>
  <ChapterHead chapter="appearance" />
  <DrawnWords />
  <p v-if="stands">
    Each stands <SettingChip setting="appearance.facing" />
    <template v-if="value('appearance.facing') === 'motion'"
      >, longer by <SettingChip setting="appearance.lengthening" /> of its way</template
    >
    <template v-if="isFlat && isSprite">
      and <SettingChip setting="appearance.wraps" />
      <template v-if="wraps"> within <SettingChip setting="appearance.wrapDepth" /></template></template
    >; it is <SettingChip setting="life.width" /> of its size wide and <SettingChip setting="life.height" /> high, its
    middle <SettingChip setting="appearance.pivotAcross" /> across and
    <SettingChip setting="appearance.pivotAlong" /> along from its place.
  </p>
  <LookWords v-if="hasLook" />
  <p v-if="isMixed">
    It is <SettingChip setting="appearance.lit" /><template v-if="value('appearance.lit') !== 'unlit'"
      >, <SettingChip setting="appearance.litShare" /> of its colour</template
    >. Its blending is <SettingChip setting="appearance.blend" /><template
      v-if="value('appearance.blend') === 'mixed'"
      >, covering by <SettingChip setting="appearance.covers" /></template
    ><template v-if="value('appearance.blend') === 'holes'"
      >, where it is less opaque than <SettingChip setting="appearance.threshold" /></template
    ><template v-if="isSprite">, drawn <SettingChip setting="appearance.order" /></template>.
  </p>
  <p>
    It is <SettingChip setting="appearance.depth" />, drawn <SettingChip setting="appearance.nudge" /> nearer than it
    is, and seen
    <ChoiceChip
      :value="layer.inside ?? ''"
      :choices="insides"
      label="where it is seen"
      previews
      @choose="setInside"
    /><template v-if="switches.length > 1"
      >,
      <ChoiceChip
        :value="layer.seenBy ?? ''"
        :choices="switches"
        label="when it is seen"
        previews
        @choose="setSeenBy" /></template
    >.
  </p>
  <p v-if="isMixed" class="quiet">{{ NOTES[value('appearance.blend')] }}</p>
</template>
