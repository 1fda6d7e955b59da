<script setup lang="ts">
import { Button } from 'ant-design-vue';
/** Mutes something in place, or lets it act again; `what` is what it is called. */
defineProps<{ muted: boolean; what: string }>();
defineEmits<{ mute: [muted: boolean] }>();
</script>

<template>
  <Button
    type="text"
    class="mute"
    :aria-label="`${muted ? 'Unmute' : 'Mute'} ${what}`"
    :title="muted ? 'Let it act again' : 'It keeps what is set, and does nothing'"
    @click="$emit('mute', !muted)"
  >
    {{ muted ? 'unmute' : 'mute' }}
  </Button>
</template>
