<script setup lang="ts">
import { Button } from 'ant-design-vue';
import type { Colour, ColourSetting } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ChoiceChip from '../chips/ChoiceChip.vue';
import ColourWords from '../chips/ColourWords.vue';
import MenuButton from '../chips/MenuButton.vue';
import PlainChip from '../chips/PlainChip.vue';
import { BASE_KINDS, kindOfBase, withAnother, withBaseKind, withColour, without, withWeight } from './bases';

/** What a colour begins with, in a sentence: one for all, anywhere between two, one of several, or taken. */
const props = defineProps<{ base: ColourSetting['base']; label: string; mayBeTaken: boolean }>();
const emit = defineEmits<{ change: [base: ColourSetting['base'], isDrag: boolean] }>();
const store = useEffectStore();
const kind = computed(() => kindOfBase(props.base));
const kinds = computed(() =>
  BASE_KINDS.filter(({ value }) => props.mayBeTaken || (value !== 'source' && value !== 'parent')),
);
const others = computed(() => kinds.value.filter(({ value }) => value !== 'one'));
const choose = (value: string) => emit('change', withBaseKind(props.base, value, store.effect!.palette), false);
const recolour = (which: number, colour: Colour, isDrag: boolean) =>
  emit('change', withColour(props.base, which, colour), isDrag);
const values = computed(() => (props.base.kind === 'set' ? props.base.values : []));
</script>

<template>
  <template v-if="base.kind === 'fixed'">
    <ColourWords :colour="base.value" :label="label" @change="(colour, drag) => recolour(0, colour, drag)" />
    <MenuButton
      label="or…"
      :choices="others"
      title="Let each particle begin with a colour of its own"
      previews
      @choose="choose"
    />
  </template>
  <template v-else>
    <ChoiceChip :value="kind" :choices="kinds" :label="`${label}, what kind`" previews @choose="choose" />
    <template v-if="base.kind === 'spread'">
      <ColourWords
        :colour="base.low"
        :label="`${label}, from`"
        @change="(colour, drag) => recolour(0, colour, drag)"
      />
      and
      <ColourWords
        :colour="base.high"
        :label="`${label}, to`"
        @change="(colour, drag) => recolour(1, colour, drag)"
      />
    </template>
    <span v-for="({ value, weight }, n) in values" :key="n" class="one">
      <ColourWords
        :colour="value"
        :label="`${label}, ${n + 1}`"
        @change="(colour, drag) => recolour(n, colour, drag)"
      />
      ×
      <PlainChip
        :value="weight"
        :label="`weight of ${label} ${n + 1}: how likely it is beside the others`"
        :least="0"
        :most="1000"
        @change="(to, gesture) => emit('change', withWeight(base, n, to), gesture !== null)"
      />
      <Button
        v-if="values.length > 1"
        type="text"
        :aria-label="`Take off ${label} ${n + 1}`"
        @click="emit('change', without(base, n), false)"
      >
        ×
      </Button>
    </span>
    <Button
      v-if="base.kind === 'set' && values.length < 16"
      type="link"
      @click="emit('change', withAnother(base), false)"
    >
      another
    </Button>
  </template>
</template>

<style scoped>
.one {
  white-space: nowrap;
}
.one + .one {
  margin-left: 4px;
}
</style>
