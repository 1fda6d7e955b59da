<script setup lang="ts">
import { atBorder, listed, withoutItem, type Burst, type Layer, type Moment } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { useBurstActs } from '../acts/useBurstActs';
import ChoiceChip from '../chips/ChoiceChip.vue';
import MomentWords from '../chips/MomentWords.vue';
import NumberChip from '../chips/NumberChip.vue';
import PlainChip from '../chips/PlainChip.vue';
import ChapterHead from './ChapterHead.vue';
import { asTier, FROM_CHOICES } from '../quality/tiers';

const store = useEffectStore();
const bursts = computed(() => listed(store.chosen!.bursts));
const isMesh = computed(() => store.chosen!.source.kind === 'mesh');
const hasHold = computed(() => store.effect!.stretches.hold.kind !== 'none');
const stretches = computed(() => [
  { value: 'opening', text: 'the opening' },
  ...(hasHold.value ? [{ value: 'hold', text: 'each hold' }] : []),
  { value: 'closing', text: 'the closing' },
]);
const SIGNAL = 'signal ';
/** What a burst counts its seconds from: a stretch, or a signal. */
const beginnings = computed(() => [
  ...stretches.value.map(({ value, text }) => ({ value, text: `into ${text}` })),
  ...listed(store.effect!.signals).map(({ id, item }) => ({ value: `${SIGNAL}${id}`, text: `after ${item.name}` })),
]);
const beginIn = (id: string, where: string) =>
  set(
    id,
    where.startsWith(SIGNAL)
      ? { signal: where.slice(SIGNAL.length) }
      : { signal: null, stretch: where as Burst['stretch'] },
  );

const { add } = useBurstActs();
const remove = (id: string) =>
  store.changeLayers('remove a burst', (layer) => (layer.bursts = withoutItem(layer.bursts, id)));
const set = (id: string, part: Partial<Burst>, gesture: string | null = null) =>
  store.changeLayers(
    'change a burst',
    (layer) => layer.bursts.byId[id] && Object.assign(layer.bursts.byId[id]!, part),
    gesture,
  );
/** The fewest and the most of a burst: one never passes the other. */
const setCount = (id: string, count: number, gesture: string | null) =>
  store.changeLayers(
    'change a burst',
    (layer) => {
      const own = layer.bursts.byId[id];
      if (!own) return;
      own.most = own.most === own.count ? count : Math.max(own.most, count);
      own.count = count;
    },
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
    <button type="button" class="plain act" @click="add">Add a burst</button>
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
      <button type="button" class="plain" title="Let them fade out over the closing" @click="setUntil(null)">
        ×
      </button>
    </template>
    <template v-else>
      , fading out over the closing
      <button type="button" class="plain act" @click="setUntil(atBorder('letGo'))">or until…</button>
    </template>
  </p>
  <p v-for="{ id, item } in bursts" :key="id" :class="{ muted: item.muted }" data-burst>
    A burst of
    <PlainChip
      :value="item.count"
      label="burst count"
      :least="0"
      :most="1000000"
      whole
      @change="(count, gesture) => setCount(id, count, gesture)"
    />
    to
    <PlainChip
      :value="item.most"
      label="burst count at most"
      :least="item.count"
      :most="1000000"
      whole
      @change="(most, gesture) => set(id, { most }, gesture)"
    />
    comes
    <PlainChip
      :value="item.at"
      label="burst time"
      unit="s"
      :least="0"
      :most="3600"
      @change="(at, gesture) => set(id, { at }, gesture)"
    />
    <ChoiceChip
      :value="item.signal === null ? item.stretch : `${SIGNAL}${item.signal}`"
      :choices="beginnings"
      label="burst stretch"
      @choose="beginIn(id, $event)"
    />,
    <PlainChip
      :value="item.times"
      label="burst times"
      :least="1"
      :most="1000"
      whole
      @change="(times, gesture) => set(id, { times }, gesture)"
    />
    {{ item.times === 1 ? 'time' : 'times'
    }}<template v-if="item.times > 1">
      every
      <PlainChip
        :value="item.every"
        label="burst every"
        unit="s"
        :least="0.01"
        :most="600"
        @change="(every, gesture) => set(id, { every }, gesture)" /></template
    >.
    <button type="button" class="plain mute" @click="set(id, { muted: !item.muted })">
      {{ item.muted ? 'unmute' : 'mute' }}
    </button>
    <button type="button" class="plain" title="Remove this burst" aria-label="Remove this burst" @click="remove(id)">
      ×
    </button>
  </p>
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
      @choose="setQuality({ least: asTier($event) })"
    />;
    <label>
      lower ones
      <ChoiceChip
        :value="store.chosen!.quality.thins ? 'thin' : 'keep'"
        :choices="THINS"
        label="whether lower qualities thin its births"
        @choose="setQuality({ thins: $event === 'thin' })"
      /> </label
    >.
  </p>
  <p>Each lives <NumberChip setting="births.life" />. At most <NumberChip setting="births.cap" /> live at once.</p>
</template>
