<script setup lang="ts">
import { holderAt, nameOfSetting, type SettingAddress } from '@jinx/core/document';
import { computed } from 'vue';
import SettingChip from '../../chips/SettingChip.vue';
import { useEffectStore } from '../../../stores/effect';

/** The chip that was used last, beside the picture alone. */
const props = defineProps<{ address: SettingAddress }>();
const store = useEffectStore();
const name = computed(() => {
  const { table } = holderAt(store.effect!, props.address)!;
  return nameOfSetting(store.effect!, props.address, table[props.address.setting]!);
});
</script>

<template>
  <span class="last">
    {{ name }}
    <SettingChip :key="name" :setting="address.setting" :of="address" :label="name" />
  </span>
</template>

<style scoped>
.last {
  color: var(--soft);
  white-space: nowrap;
}
</style>
