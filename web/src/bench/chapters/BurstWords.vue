<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { listed, type Burst } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import MuteButton from '../chips/MuteButton.vue';
import ChoiceChip from '../chips/ChoiceChip.vue';
import PlainChip from '../chips/PlainChip.vue';

/** One burst as a sentence: what it does not use is offered in one word. */
const props = defineProps<{ burst: Burst }>();
const emit = defineEmits<{ set: [part: Partial<Burst>, gesture: string | null]; remove: [] }>();
const store = useEffectStore();
/** How often a burst that is made to come again comes, and how far apart. */
const AGAIN = { times: 2, every: 0.5 } as const;
/** How many more at most a burst that is made to vary has. */
const MORE = 1.5;

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
const set = (part: Partial<Burst>, gesture: string | null = null) => emit('set', part, gesture);
const beginIn = (where: string) =>
  set(
    where.startsWith(SIGNAL)
      ? { signal: where.slice(SIGNAL.length) }
      : { signal: null, stretch: where as Burst['stretch'] },
  );
/** The fewest and the most: one never passes the other. */
const setCount = (count: number, gesture: string | null) => {
  const { count: was, most } = props.burst;
  set({ count, most: most === was ? count : Math.max(most, count) }, gesture);
};
</script>

<template>
  <p :class="{ muted: burst.muted }" data-burst>
    A burst of
    <PlainChip :value="burst.count" label="burst count" :least="0" :most="1000000" whole @change="setCount" />
    <template v-if="burst.most > burst.count">
      to
      <PlainChip
        :value="burst.most"
        label="burst count at most"
        :least="burst.count"
        :most="1000000"
        whole
        @change="(most, gesture) => set({ most }, gesture)"
    /></template>
    <Button
      v-else
      type="link"
      title="Each time as many as are drawn between two counts"
      @click="set({ most: Math.max(burst.count + 1, Math.round(burst.count * MORE)) })"
    >
      to…
    </Button>
    at
    <PlainChip
      :value="burst.at"
      label="burst time"
      unit="s"
      :least="0"
      :most="3600"
      @change="(at, gesture) => set({ at }, gesture)"
    />
    <ChoiceChip
      :value="burst.signal === null ? burst.stretch : `${SIGNAL}${burst.signal}`"
      :choices="beginnings"
      label="burst stretch"
      previews
      @choose="beginIn"
    />
    <template v-if="burst.times > 1"
      >, again every
      <PlainChip
        :value="burst.every"
        label="burst every"
        unit="s"
        :least="0.01"
        :most="600"
        @change="(every, gesture) => set({ every }, gesture)"
      />,
      <PlainChip
        :value="burst.times"
        label="burst times"
        :least="1"
        :most="1000"
        whole
        @change="(times, gesture) => set({ times }, gesture)"
      />
      times in all</template
    >
    <Button v-else type="link" @click="set(AGAIN)">again every…</Button>
    <MuteButton :muted="burst.muted" what="this burst" @mute="(muted) => set({ muted })" />
    <Button type="text" title="Remove this burst" aria-label="Remove this burst" @click="emit('remove')"> × </Button>
  </p>
</template>
