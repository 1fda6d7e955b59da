<script setup lang="ts">
import { whyUnseen } from '@jinx/core/checks';
import { ownerOf, type Change, type Id } from '@jinx/core/document';
import { inject, onBeforeUnmount, ref, watch } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';

/** Says why the last change cannot be seen in the picture of this instant. */
const store = useEffectStore();
const engine = inject(ENGINE)!;
/** A change is looked at once its picture is there. */
const AFTER_MILLISECONDS = 500;
const why = ref<string | null>(null);
let timer = 0;
let changes: readonly Change[] = [];

function livingOf(layer: Id): number | null {
  const owner = store.effect!.layers.byId[ownerOf(store.effect!, layer)];
  return engine.state.layers.find(({ salt }) => salt === owner?.salt)?.living ?? null;
}
function look(): void {
  why.value = store.effect && changes.length > 0 ? whyUnseen(store.effect, changes, livingOf) : null;
}
onBeforeUnmount(
  store.onTransition((transition) => {
    changes = transition.changes;
    why.value = null;
    window.clearTimeout(timer);
    timer = window.setTimeout(look, AFTER_MILLISECONDS);
  }),
);
onBeforeUnmount(() => window.clearTimeout(timer));
// Elsewhere in time it may be seen, and of another layer it says nothing.
watch([() => engine.state.step, () => engine.state.isPlaying], () => why.value && look());
watch(
  () => store.chosenId,
  () => {
    changes = [];
    why.value = null;
  },
);
</script>

<template>
  <div v-if="why" class="note" role="status" data-unseen>Not seen: {{ why }}</div>
</template>

<style scoped>
.note {
  background: #131314d9;
  padding: 1px 8px;
  border-radius: 4px;
  font-size: 13px;
}
</style>
