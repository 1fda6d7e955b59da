<script setup lang="ts">
import SettingChip from '../SettingChip.vue';
</script>

<template>
  <p>
    Each lights what is within <SettingChip setting="reach" of="drawn" label="reach" />, in its colour and as strongly
    as it glows: surfaces <SettingChip setting="surfaces" of="drawn" label="strength on surfaces" />, fog
    <SettingChip setting="fog" of="drawn" label="strength in fog" />.
  </p>
  <p class="quiet">
    Sixteen lights are given to the strongest particles of the effect; whoever has one keeps it until another is
    clearly stronger.
  </p>
</template>
