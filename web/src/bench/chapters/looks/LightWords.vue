<script setup lang="ts">
import SettingChip from '../../chips/SettingChip.vue';
import { useChosenPart } from '../../useChosenPart';

/** What a layer of lights lights. */
const of = useChosenPart('drawn');
</script>

<template>
  <p>
    Each lights what is within <SettingChip setting="reach" :of="of" label="reach" />, in its colour and as strongly
    as it glows: surfaces <SettingChip setting="surfaces" :of="of" label="strength on surfaces" />, fog
    <SettingChip setting="fog" :of="of" label="strength in fog" />.
  </p>
  <p class="quiet">
    Sixteen lights are given to the strongest particles of the effect; whoever has one keeps it until another is
    clearly stronger.
  </p>
</template>
