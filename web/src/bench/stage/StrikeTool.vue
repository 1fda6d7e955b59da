<script setup lang="ts">
import { inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { useCommands } from '../commands/registry';
import type { Picture } from '../handles/picture';
import PickCatch from '../reading/PickCatch.vue';
import { useProbe } from '../reading/probe';

/** Blows where the stage is pressed, or at its middle. `near` is the picture before it goes along with a figure. */
const props = defineProps<{ near: Picture | null; hasHits: boolean; follows: boolean }>();
const engine = inject(ENGINE)!;
const store = useEffectStore();
const probe = useProbe();
const FAR_METRES = 100;

/** Strikes what is seen at a pixel of the stage's window. */
function strike(x: number, y: number): void {
  if (!props.near) return;
  const { from, way } = props.near.sight(x, y);
  const to = from.clone().addScaledVector(way, FAR_METRES);
  const followed = props.follows ? (store.effect?.stage.things.order[0] ?? null) : null;
  engine.simulation.strike(from.toArray(), to.toArray(), followed);
}
const strikeMiddle = () => props.near && strike(props.near.width / 2, props.near.height / 2);
function press(event: PointerEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  strike(event.clientX - box.left, event.clientY - box.top);
}
useCommands({
  'stage.strike': () => void (props.hasHits && strikeMiddle()),
  'stage.strikeTool': () => void (probe.isPicking = props.hasHits && probe.isPicking !== 'strike' ? 'strike' : null),
});
</script>

<template>
  <PickCatch
    v-if="probe.isPicking === 'strike'"
    words="Each click strikes there; Escape ends it"
    help="Click where a blow shall land; Enter strikes the middle, Escape ends that"
    @press="press"
    @middle="strikeMiddle"
    @end="probe.isPicking = null"
  />
</template>
