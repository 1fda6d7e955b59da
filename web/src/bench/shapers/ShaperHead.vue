<script setup lang="ts">
import { Button } from 'ant-design-vue';
import type { Combine, Shaper } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import MuteButton from '../chips/MuteButton.vue';
import ChoiceChip from '../chips/ChoiceChip.vue';
import PlainChip from '../chips/PlainChip.vue';
import { readsText, UNITS } from '../values/shapers';

/** What a shaper does, in words: how it combines, by what, and up to where; between how and by what stands the slot. */
const props = defineProps<{
  shaper: Shaper;
  label: string;
  combines: readonly { value: Combine; text: string }[];
  /** Whether it may shape one axis alone. */
  hasAxes?: boolean | undefined;
  /** Where its last key or stop stands. */
  width: number;
}>();
const emit = defineEmits<{
  combine: [combine: Combine];
  turn: [axis: Shaper['axis']];
  widen: [width: number, gesture: string | null];
  mute: [muted: boolean];
  remove: [];
}>();
const store = useEffectStore();
const AXES = [
  { value: 'all', text: 'all axes' },
  { value: 'x', text: 'x' },
  { value: 'y', text: 'y' },
  { value: 'z', text: 'z' },
];
const what = computed(() => readsText(props.shaper.reads, store.effect!));
const unit = computed(() => UNITS[props.shaper.reads.kind]);
</script>

<template>
  <span :class="{ muted: shaper.muted }">
    <ChoiceChip
      :value="shaper.combine"
      :choices="combines"
      :label="`${label}, ${what}, how`"
      previews
      @choose="emit('combine', $event as Combine)"
    />
    <template v-if="hasAxes">
      on
      <ChoiceChip
        :value="shaper.axis ?? 'all'"
        :choices="AXES"
        :label="`${label}, ${what}, on which axis`"
        previews
        @choose="emit('turn', $event === 'all' ? undefined : ($event as Shaper['axis']))"
      />
    </template>
    <slot></slot>
    by {{ what
    }}<template v-if="unit !== undefined"
      >, up to
      <PlainChip
        :value="width"
        :label="`${label}, ${what}, up to`"
        :unit="unit"
        :least="0.01"
        :most="1000"
        @change="(to, drag) => emit('widen', to, drag)"
      />
    </template>
    <MuteButton :muted="shaper.muted" :what="`what ${what} does to ${label}`" @mute="emit('mute', $event)" />
    <Button type="text" :aria-label="`Take off what ${what} does to ${label}`" @click="emit('remove')"> × </Button>
  </span>
</template>
