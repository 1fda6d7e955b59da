<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { computed } from 'vue';
import { injectCommands } from '../commands/registry';
import type { CommandId } from '../commands/list';
import { keyName } from '../commands/placeKeys';

/** An icon of the rail that carries out a command, with its key in its tooltip. */
const props = defineProps<{ command: CommandId; name: string; isOn?: boolean }>();
const commands = injectCommands();
const key = computed(() => commands.keysOf(props.command)[0]);
</script>

<template>
  <Button
    type="text"
    class="rail-button"
    :class="{ on: isOn }"
    :aria-label="name"
    :aria-pressed="isOn"
    :title="key ? `${name} (${keyName(key)})` : name"
    @click="commands.run(command)"
  >
    <slot></slot>
  </Button>
</template>
