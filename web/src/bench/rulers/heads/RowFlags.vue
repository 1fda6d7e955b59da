<script setup lang="ts">
import { EyeInvisibleOutlined, EyeOutlined, LockOutlined, UnlockOutlined } from '@ant-design/icons-vue';
import { computed } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import type { LayerActs } from '../useLayerActs';

/** Whether a row's layer is hidden, seen alone or locked: seen where it is so, and all three where the row is pointed at. */
const props = defineProps<{ id: string; acts: LayerActs }>();
const store = useEffectStore();
const layer = computed(() => store.effect!.layers.byId[props.id]!);
</script>

<template>
  <span class="flags" @click.stop>
    <button
      type="button"
      class="plain flag"
      :class="{ set: layer.hidden }"
      :aria-label="`${layer.hidden ? 'Show' : 'Hide'} ${layer.name}`"
      :title="layer.hidden ? 'Hidden: press to show it (H)' : 'Hide it (H)'"
      @click="acts.flip(id, 'hidden')"
    >
      <EyeInvisibleOutlined v-if="layer.hidden" /><EyeOutlined v-else />
    </button>
    <button
      type="button"
      class="plain flag"
      :class="{ set: layer.solo }"
      :aria-pressed="layer.solo"
      :aria-label="`See ${layer.name} alone`"
      :title="layer.solo ? 'Seen alone: press to see all (S)' : 'See it alone (S)'"
      @click="acts.flip(id, 'solo')"
    >
      <i class="alone"></i>
    </button>
    <button
      type="button"
      class="plain flag"
      :class="{ set: layer.locked }"
      :aria-label="`${layer.locked ? 'Unlock' : 'Lock'} ${layer.name}`"
      :title="layer.locked ? 'Locked: press to unlock it (O)' : 'Lock it (O)'"
      @click="acts.flip(id, 'locked')"
    >
      <LockOutlined v-if="layer.locked" /><UnlockOutlined v-else />
    </button>
  </span>
</template>

<style scoped>
.flags {
  display: flex;
  flex: none;
}
.flag {
  display: none;
  align-items: center;
  justify-content: center;
  width: 24px;
  height: 24px;
  padding: 0;
  font-size: 13px;
}
.flag.set {
  display: flex;
  color: var(--accent);
}
:global(.row:hover .flag),
:global(.row:focus-within .flag),
:global(.row.open .flag) {
  display: flex;
}
.alone {
  width: 13px;
  height: 13px;
  border: 1px solid currentColor;
  border-radius: 50%;
  font-size: 10px;
  font-style: normal;
  line-height: 12px;
  text-align: center;
}
/* An icon: no text of its own. */
.alone::before {
  content: '1';
}
</style>
