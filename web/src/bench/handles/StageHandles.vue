<script setup lang="ts">
import { formatAddress } from '@jinx/core/document';
import { inject, computed, ref, toRef } from 'vue';
import type { Vector3 } from 'three';
import { ENGINE } from '../bench';
import { useCommands } from '../commands/registry';
import HandleNumbers from './HandleNumbers.vue';
import TapeMeasure from '../stage/TapeMeasure.vue';
import type { Picture, Spot } from './picture';
import ThingHandles from './ThingHandles.vue';
import { useHandles } from './useHandles';

/** Handles over the stage: the chosen layer's places are moved, turned and sized where they stand. */
const props = defineProps<{ picture: Picture | null; isShown: boolean }>();
const engine = inject(ENGINE)!;
const svg = ref<SVGSVGElement>();
const handles = useHandles(engine, toRef(props, 'picture'), () => svg.value!);
const { tool, places, chosen, standing, knobs, points, keys, isPulled } = handles;
const setTool = (to: typeof tool.value) => () => void (tool.value = to);
useCommands({
  'handle.move': setTool('move'),
  'handle.turn': setTool('turn'),
  'handle.size': setTool('size'),
  'handle.key': handles.keyHere,
});

/** Pixels from a handle's middle to the ends of its arms, and of its rings. */
const ARM = 62;
const RING = 54;
const RING_PARTS = 48;
/** Pixels from the middle at which the size of something that has none is taken hold of. */
const LEAST_KNOB = 26;
const AXES = ['x', 'y', 'z'] as const;

const spotOf = (place: Vector3): Spot => props.picture!.spot(place);
const dots = computed(() =>
  props.picture
    ? places.value.flatMap(({ address, name, place, group }) => {
        const at = handles.standingOf({ place, group });
        const spot = at && spotOf(at.origin);
        return spot?.isAhead ? [{ key: formatAddress(address), address, name, ...spot }] : [];
      })
    : [],
);
/** Where the places stand in the world. */
const origins = computed(() => places.value.flatMap((place) => handles.standingOf(place)?.origin ?? []));
const chosenKey = computed(() => (chosen.value ? formatAddress(chosen.value.address) : ''));
const middle = computed(() => {
  const spot = standing.value && props.picture && spotOf(standing.value.origin);
  return spot?.isAhead ? spot : null;
});
const arms = computed(() => {
  const at = standing.value;
  if (!at || !middle.value || tool.value !== 'move') return [];
  const pixel = props.picture!.metresAPixel(at.origin);
  return AXES.flatMap((name, axis) => {
    const end = spotOf(at.origin.addScaledVector(at.offsetAxis(axis).normalize(), ARM * pixel));
    const isSeen = Math.hypot(end.x - middle.value!.x, end.y - middle.value!.y) > ARM / 6;
    return isSeen ? [{ name, axis, ...end }] : [];
  });
});
const rings = computed(() => {
  const at = standing.value;
  if (!at || !middle.value || tool.value !== 'turn') return [];
  const radius = RING * props.picture!.metresAPixel(at.origin);
  return AXES.map((name, axis) => {
    const round = at.turnAxis(axis);
    const start = round
      .clone()
      .cross(at.turnAxis((axis + 1) % 3))
      .normalize()
      .multiplyScalar(radius);
    const around = Array.from({ length: RING_PARTS + 1 }, (_, n) => {
      const { x, y } = spotOf(at.origin.add(start.clone().applyAxisAngle(round, (n / RING_PARTS) * 2 * Math.PI)));
      return `${n ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`;
    });
    const label = spotOf(at.origin.add(start));
    return { name, axis, line: around.join(''), label };
  });
});
const pulls = computed(() => {
  const at = standing.value;
  if (!at || !middle.value || tool.value !== 'size') return [];
  return knobs.value.flatMap((knob) => {
    const least = LEAST_KNOB * props.picture!.metresAPixel(at.origin);
    const end = at.inner(knob.at);
    const isNear = end.distanceTo(at.origin) < least;
    const spot = spotOf(isNear ? at.origin.add(at.innerWay(knob.way).setLength(least)) : end);
    return spot.isAhead ? [{ knob, ...spot }] : [];
  });
});
const pathPoints = computed(() => {
  const at = standing.value;
  return at && props.picture && tool.value === 'move' ? points.value.map((point) => spotOf(at.inner(point))) : [];
});
const keySpots = computed(() => {
  const place = chosen.value;
  if (!place || !props.picture) return [];
  return keys.value.flatMap(({ id, item }) => {
    const at = handles.standingOf(place, item.at);
    return at ? [{ id, at: item.at, ...spotOf(at.origin) }] : [];
  });
});

function pointKey(event: KeyboardEvent, n: number): void {
  if (event.key !== 'Insert' && event.key !== 'Delete') return handles.nudgePoint(event, n);
  event.preventDefault();
  event.stopPropagation();
  handles.changePoints(event.key === 'Insert' ? 'add' : 'remove', n);
}
function keyKey(event: KeyboardEvent, id: string, at: number): void {
  if (event.key === 'Delete') handles.removeKey(id);
  else if (event.key === 'Enter') handles.seekTo(at);
  else return handles.nudgeKey(event, id);
  event.preventDefault();
  event.stopPropagation();
}
/** What lies on the chosen place itself lets the pointer through to it. */
const isOnMiddle = ({ x, y }: Spot) =>
  middle.value !== null && Math.hypot(x - middle.value.x, y - middle.value.y) < 7;
const diamond = (size: number) => `M0 ${-size}L${size} 0L0 ${size}L${-size} 0Z`;
</script>

<template>
  <svg v-show="isShown" ref="svg" class="handles painted-apart" role="group" aria-label="Handles on the stage">
    <ThingHandles v-if="picture" :picture="picture" :sight-of="handles.sightOf" />
    <template v-if="middle">
      <g
        v-for="arm in arms"
        :key="arm.name"
        class="arm"
        :data-axis="arm.name"
        @pointerdown="handles.pullPlace($event, chosen!.address, arm.axis)"
      >
        <line class="grip" :x1="middle.x" :y1="middle.y" :x2="arm.x" :y2="arm.y" />
        <line class="casing" :x1="middle.x" :y1="middle.y" :x2="arm.x" :y2="arm.y" />
        <line class="line" :x1="middle.x" :y1="middle.y" :x2="arm.x" :y2="arm.y" />
        <circle class="end" :cx="arm.x" :cy="arm.y" r="4" />
        <text :x="arm.x + 7" :y="arm.y + 4">{{ arm.name }}</text>
        <title>Move along {{ arm.name }}; with Ctrl by 5 cm</title>
      </g>
      <g v-for="ring in rings" :key="ring.name" class="arm" @pointerdown="handles.pullTurn($event, ring.axis)">
        <path class="grip" :d="ring.line" />
        <path class="casing" :d="ring.line" />
        <path class="line" :d="ring.line" />
        <text :x="ring.label.x + 6" :y="ring.label.y - 5">{{ ring.name }}</text>
        <title>Turn round {{ ring.name }}; with Ctrl by 15°</title>
      </g>
    </template>
    <!-- In the order in which Tab goes: each place, then what belongs to the chosen one. -->
    <g
      v-for="{ key, address, name, x, y } in dots"
      :key="key"
      class="dot"
      :class="{ on: key === chosenKey }"
      tabindex="0"
      role="button"
      :aria-label="`handle of the ${name}`"
      :aria-pressed="key === chosenKey"
      :transform="`translate(${x} ${y})`"
      @pointerdown="handles.pullPlace($event, address)"
      @focus="handles.choose(address)"
      @keydown="handles.nudge"
    >
      <circle class="grip" r="9" />
      <circle class="rim" r="6.5" />
      <circle class="core" r="1.8" />
      <text v-if="key !== chosenKey" class="name" x="11" y="4">{{ name }}</text>
      <title>{{ name }}: drag it, or arrows and Page Up, Page Down</title>
    </g>
    <g
      v-for="{ knob, x, y } in pulls"
      :key="knob.id"
      class="arm"
      tabindex="0"
      role="button"
      :aria-label="`${knob.name} of the ${chosen!.name}`"
      @pointerdown="handles.pullKnob($event, knob)"
      @keydown="handles.nudgeKnob($event, knob)"
    >
      <line class="casing" :x1="middle!.x" :y1="middle!.y" :x2="x" :y2="y" />
      <line class="line faint" :x1="middle!.x" :y1="middle!.y" :x2="x" :y2="y" />
      <rect class="end" :x="x - 5" :y="y - 5" width="10" height="10" />
      <text :x="x + 9" :y="y + 4">{{ knob.name }}</text>
    </g>
    <g
      v-for="(spot, n) in pathPoints"
      v-show="spot.isAhead"
      :key="`point ${n}`"
      class="arm"
      :class="{ under: isOnMiddle(spot) }"
      tabindex="0"
      role="button"
      :aria-label="`point ${n + 1} of the path`"
      @pointerdown="handles.pullPoint($event, n)"
      @keydown="pointKey($event, n)"
    >
      <rect class="end" :x="spot.x - 4" :y="spot.y - 4" width="8" height="8" />
      <title>Drag this point, or arrows and Page Up, Page Down; Insert adds one after it, Delete takes it away</title>
    </g>
    <g
      v-for="{ id, at, ...spot } in keySpots"
      v-show="spot.isAhead"
      :key="id"
      class="arm"
      :class="{ under: isOnMiddle(spot) }"
      tabindex="0"
      role="button"
      :aria-label="`key at ${at} s`"
      :transform="`translate(${spot.x} ${spot.y})`"
      @pointerdown="handles.pullKey($event, id)"
      @keydown="keyKey($event, id, at)"
    >
      <path class="end" :d="diamond(6)" />
      <title>
        Key at {{ at }} s: press to go there, drag to move it, or arrows and Page Up, Page Down; Delete takes it away
      </title>
    </g>
  </svg>
  <TapeMeasure :picture="picture" :places="origins" :beside="standing?.origin ?? null" />
  <HandleNumbers
    v-if="isPulled && chosen && standing && middle"
    :name="chosen.name"
    :tool="tool"
    :hung="standing.hung"
    :knobs="knobs"
    :style="{ left: `${middle.x + 16}px`, top: `${middle.y + 16}px` }"
  />
</template>

<style scoped>
.handles {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  overflow: hidden;
}
.arm,
.dot {
  pointer-events: auto;
  cursor: grab;
  touch-action: none;
}
.arm.under {
  pointer-events: none;
}
.grip {
  fill: none;
  stroke: transparent;
  stroke-width: 11;
  pointer-events: stroke;
}
.dot .grip {
  fill: transparent;
  stroke: none;
  pointer-events: fill;
}
/* On a bright surround a light line shows by its dark edge. */
.casing {
  fill: none;
  stroke: #0c0c0d;
  stroke-width: 3.6;
  stroke-opacity: 0.55;
}
.line {
  fill: none;
  stroke: #e4e4e6;
  stroke-width: 1.2;
  stroke-opacity: 0.9;
}
.faint {
  stroke-dasharray: 3 4;
  stroke-opacity: 0.5;
}
.end {
  fill: #161617;
  stroke: #e4e4e6;
  stroke-width: 1.4;
}
.arm:hover .line,
.arm:hover .end {
  stroke: var(--accent);
  stroke-opacity: 1;
}
text {
  fill: #e4e4e6;
  font-size: 12.5px;
  paint-order: stroke;
  stroke: #0c0c0dcc;
  stroke-width: 3px;
  user-select: none;
  pointer-events: none;
}
.rim {
  fill: #0c0c0d88;
  stroke: #c9c9cc;
  stroke-width: 1.3;
}
.core {
  fill: #c9c9cc;
}
.dot .name {
  visibility: hidden;
}
.dot:hover .name,
.dot:focus-visible .name {
  visibility: visible;
}
.arm:focus-visible,
.dot:focus-visible {
  outline: none;
}
.arm:focus-visible .end,
.dot:focus-visible .rim {
  stroke: var(--accent);
  stroke-width: 3;
}
.arm:focus-visible .end {
  fill: var(--accent);
}
.on .rim,
.dot:hover .rim {
  stroke: var(--accent);
}
.on .core {
  fill: var(--accent);
}
</style>
