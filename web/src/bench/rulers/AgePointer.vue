<script setup lang="ts">
import { listed, ownerOf } from '@jinx/core/document';
import { computed, inject, onBeforeUnmount, watch } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { plainNumber } from '../entry/numbers';

/** The age that is pointed at, in percent and in seconds from the shortest to the longest life; on the stage, what has that age may be lit. */
const props = defineProps<{
  age: number;
  isLit: boolean;
  lifetimes: readonly number[];
  left: number;
  width: number;
}>();
const engine = inject(ENGINE)!;
const store = useEffectStore();
const text = computed(() => {
  const [low, high] = [props.lifetimes[0]!, props.lifetimes[2]!].map((life) => plainNumber(life * props.age));
  return `${Math.round(props.age * 100)}%  ${low === high ? low : `${low} – ${high}`} s`;
});
const x = computed(() => props.left + props.age * props.width);
/** Every layer that shows the chosen one's particles. */
const salts = computed(() => {
  const owner = ownerOf(store.effect!, store.chosenId);
  return listed(store.effect!.layers).flatMap(({ id, item }) =>
    ownerOf(store.effect!, id) === owner ? [item.salt] : [],
  );
});
watch(
  [() => props.age, () => props.isLit, salts],
  ([age, isLit, lit]) => engine.stage.lightAge(isLit ? lit : [], age),
  {
    immediate: true,
  },
);
onBeforeUnmount(() => engine.stage.lightAge([], 0));
</script>

<template>
  <div class="pointer" :style="{ left: `${x}px` }" aria-hidden="true">
    <span class="number" :class="{ left: age > 0.7 }">{{ text }}</span>
  </div>
</template>

<style scoped>
.pointer {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 1px solid #8a8a8e;
  pointer-events: none;
}
span {
  position: absolute;
  bottom: 38px;
  left: 4px;
  white-space: pre;
  font-size: 11.5px;
  color: var(--ink);
  background: #161617d0;
  padding: 0 3px;
  border-radius: 2px;
}
.left {
  left: auto;
  right: 4px;
}
</style>
