<script setup lang="ts">
import { Button, Popconfirm } from 'ant-design-vue';

/** Deletes something once that is confirmed; `along` says what goes with it. */
defineProps<{ name: string; along?: string }>();
const emit = defineEmits<{ delete: [] }>();
</script>

<template>
  <Popconfirm
    :title="`Delete ${name}${along ? ` with ${along}` : ''}? It can be brought back for 30 days.`"
    ok-text="Delete"
    cancel-text="Keep"
    @confirm="emit('delete')"
  >
    <Button type="text" :aria-label="`Delete ${name}`">Delete</Button>
  </Popconfirm>
</template>
