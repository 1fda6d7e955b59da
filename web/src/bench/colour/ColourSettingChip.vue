<script setup lang="ts">
import {
  formatAddress,
  listed,
  type ColourDeclaration,
  type ColourSetting,
  type HolderAddress,
} from '@jinx/core/document';
import { useSetting } from '../values/useSetting';
import ColourBaseWords from './ColourBaseWords.vue';

/** What a colour of the chosen layer, or of a part of it, begins with. */
const props = defineProps<{ setting: string; label: string; of?: HolderAddress }>();
const {
  address,
  setting: chosen,
  declaration,
  change,
} = useSetting<ColourSetting, ColourDeclaration>(
  () => props.setting,
  () => props.of,
);
const set = (base: ColourSetting['base'], isDrag: boolean) =>
  change(
    `choose the ${props.label}`,
    (target) => {
      // A gradient that replaces it would leave nothing to be seen of colours of their own.
      if (target.base.kind === 'fixed' && base.kind !== 'fixed')
        for (const { item } of listed(target.shapers)) if (item.combine === 'replace') item.combine = 'multiply';
      target.base = base;
    },
    isDrag ? `${props.label} colour` : null,
  );
</script>

<template>
  <span :class="{ muted: chosen.muted }" :data-address="formatAddress({ ...address, setting })">
    <ColourBaseWords
      :base="chosen.base"
      :label="label"
      :may-be-taken="declaration.mayBeTaken === true"
      @change="set"
    />
  </span>
</template>
