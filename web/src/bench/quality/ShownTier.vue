<script setup lang="ts">
import type { Tier } from '@jinx/core/document';
import { Segmented } from 'ant-design-vue';
import { useEffectStore } from '../../stores/effect';
import { asTier, TIER_CHOICES } from './tiers';

/** The quality that the effect is seen in on the bench. */
const store = useEffectStore();
const show = (shown: Tier) => store.change(`see it in ${shown} quality`, (draft) => (draft.quality.shown = shown));
</script>

<template>
  <Segmented
    v-if="store.effect"
    size="small"
    class="tier"
    aria-label="Quality it is seen in"
    title="The quality that it is seen in here: what each keeps is set under Whole effect, Quality"
    :value="store.effect.quality.shown"
    :options="TIER_CHOICES"
    @change="show(asTier($event))"
  />
</template>

<style scoped>
.tier :deep(.ant-segmented-item-selected) {
  color: var(--accent);
}
</style>
