<script setup lang="ts">
import { Button } from 'ant-design-vue';
import type { Combine, Shaper } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import MuteButton from './MuteButton.vue';
import ChoiceChip from './ChoiceChip.vue';
import PlainChip from './PlainChip.vue';
import { readsText, UNITS } from '../values/shapers';

/** What a shaper does, in words: how it combines, by what, and up to where; between how and by what stands the slot. */
const props = defineProps<{
  shaper: Shaper;
  label: string;
  combines: readonly { value: Combine; text: string }[];
  /** Where its last key or stop stands. */
  width: number;
}>();
const emit = defineEmits<{
  combine: [combine: Combine];
  widen: [width: number, gesture: string | null];
  mute: [muted: boolean];
  remove: [];
}>();
const store = useEffectStore();
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
