<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { atBorder, listed, withoutItem, type Burst, type Layer, type Moment } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { useBurstActs } from '../acts/useBurstActs';
import ChoiceChip from '../chips/ChoiceChip.vue';
import MomentWords from '../chips/MomentWords.vue';
import NumberChip from '../chips/NumberChip.vue';
import BurstWords from './BurstWords.vue';
import ChapterHead from './ChapterHead.vue';
import { asTier, FROM_CHOICES } from '../quality/tiers';

const store = useEffectStore();
const bursts = computed(() => listed(store.chosen!.bursts));
const isMesh = computed(() => ['mesh', 'drawn'].includes(store.chosen!.source.kind));
const { add } = useBurstActs();
const remove = (id: string) =>
  store.changeLayers('remove a burst', (layer) => (layer.bursts = withoutItem(layer.bursts, id)));
const set = (id: string, part: Partial<Burst>, gesture: string | null = null) =>
  store.changeLayers(
    'change a burst',
    (layer) => layer.bursts.byId[id] && Object.assign(layer.bursts.byId[id]!, part),
    gesture,
  );
const births = computed(() => store.chosen!.births);
const setFrom = (from: Moment, gesture: string | null) =>
  store.changeLayers('set when births begin', (layer) => (layer.births.from = from), gesture);
const setUntil = (until: Moment | null, gesture: string | null = null) =>
  store.changeLayers('set when births end', (layer) => (layer.births.until = until), gesture);
const THINS = [
  { value: 'thin', text: 'thin its births' },
  { value: 'keep', text: 'keep all its births' },
];
const setQuality = (part: Partial<Layer['quality']>) =>
  store.changeLayers('set which qualities have it', (layer) => Object.assign(layer.quality, part));
</script>

<template>
  <ChapterHead chapter="births">
    <Button type="link" @click="add">Add a burst</Button>
  </ChapterHead>
  <p>
    They are born at <NumberChip setting="births.rate" />, and <NumberChip setting="births.perMetre" /> the source
    travels.
  </p>
  <p>
    From <MomentWords :moment="births.from" :layer-id="store.chosenId" label="births begin" @change="setFrom" />
    <template v-if="births.until">
      until
      <MomentWords :moment="births.until" :layer-id="store.chosenId" label="births end" @change="setUntil" />
      <Button type="text" title="Let them fade out over the closing" @click="setUntil(null)"> × </Button>
    </template>
    <template v-else>
      , fading out over the closing
      <Button type="link" @click="setUntil(atBorder('letGo'))">or until…</Button>
    </template>
  </p>
  <BurstWords
    v-for="{ id, item } in bursts"
    :key="id"
    :burst="item"
    @set="(part, gesture) => set(id, part, gesture)"
    @remove="remove(id)"
  />
  <p>
    Besides, <NumberChip setting="births.standing" /><template v-if="isMesh">
      and <NumberChip setting="births.perArea" /> of its surface</template
    >
    stand for as long as the effect does.
  </p>
  <p>
    They are there in
    <ChoiceChip
      :value="store.chosen!.quality.least"
      :choices="FROM_CHOICES"
      label="which qualities have this layer"
      previews
      @choose="setQuality({ least: asTier($event) })"
    />;
    <span class="together"
      >lower ones
      <ChoiceChip
        :value="store.chosen!.quality.thins ? 'thin' : 'keep'"
        :choices="THINS"
        label="whether lower qualities thin its births"
        @choose="setQuality({ thins: $event === 'thin' })"
      />.</span
    >
  </p>
  <p>Each lives <NumberChip setting="births.life" />. At most <NumberChip setting="births.cap" /> live at once.</p>
</template>

<style scoped>
.together {
  white-space: nowrap;
}
</style>
