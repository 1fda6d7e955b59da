<script setup lang="ts">
import { listed, type Effect, type Vector } from '@jinx/core/document';
import { Vector3 } from 'three';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { tidy } from '../rulers/keyPlaces';
import { nudgeOf, OVER_GROUND } from './nudge';
import { alongAxis, onPlane, type Picture } from './picture';
import { pull, type PullHost } from './pull';

/** Handles of what stands on the stage, of the artist's own lights, and of both ends of a flight: pulled over the ground, and upward with Shift. */
const props = defineProps<{ picture: Picture; sightOf: PullHost['sight'] }>();
const store = useEffectStore();
const UP = new Vector3(0, 1, 0);
const SNAP_METRES = 0.05;
const NUDGE_METRES = 0.05;

interface Standing {
  readonly key: string;
  readonly name: string;
  readonly at: Vector;
  readonly write: (draft: Effect, at: Vector) => void;
}
const all = computed((): Standing[] => {
  const { things, lights, carrier } = store.effect!.stage;
  const ends: Standing[] =
    carrier.kind === 'flight'
      ? (['from', 'to'] as const).map((end) => ({
          key: `flight ${end}`,
          name: end === 'from' ? 'beginning of the flight' : 'end of the flight',
          at: carrier[end],
          write: (draft, at) => {
            if (draft.stage.carrier.kind === 'flight') draft.stage.carrier[end] = at;
          },
        }))
      : [];
  return [
    ...listed(things).map(({ id, item }) => ({
      key: id,
      name: item.name,
      at: item.at,
      write: (draft: Effect, at: Vector) => {
        const thing = draft.stage.things.byId[id];
        if (thing) thing.at = at;
      },
    })),
    ...listed(lights).map(({ id, item }) => ({
      key: id,
      name: item.name,
      at: item.at,
      write: (draft: Effect, at: Vector) => {
        const light = draft.stage.lights.byId[id];
        if (light) light.at = at;
      },
    })),
    ...ends,
  ];
});
const spots = computed(() =>
  all.value.flatMap((one) => {
    const spot = props.picture.spot(new Vector3(...one.at));
    return spot.isAhead ? [{ ...one, ...spot }] : [];
  }),
);
const toVector = ({ x, y, z }: Vector3): Vector => [tidy(x), tidy(y), tidy(z)];

function pullThing(event: PointerEvent, { name, at, write }: Standing): void {
  const origin = new Vector3(...at);
  const isUp = event.shiftKey;
  let stepsBefore = 0;
  const host: PullHost = {
    sight: props.sightOf,
    begin: () => undefined,
    dragBegins: () => void (stepsBefore = store.past.length),
    change: (recipe) => store.change(`move ${name}`, recipe, `move ${name}`),
    end: (isGivenUp) => {
      store.endGesture();
      if (isGivenUp && store.past.length > stepsBefore) store.undo();
    },
  };
  pull(event, host, (start) => {
    const from = isUp ? alongAxis(start, origin, UP) : onPlane(start, origin, UP);
    return (sight, isSnapped) => {
      const to = isUp ? alongAxis(sight, origin, UP) : onPlane(sight, origin, UP);
      if (from === null || to === null) return null;
      const moved =
        typeof to === 'number'
          ? origin.clone().addScaledVector(UP, to - (from as number))
          : origin.clone().add(to.clone().sub(from as Vector3));
      const fit = (value: number) => (isSnapped ? Math.round(value / SNAP_METRES) * SNAP_METRES : value);
      return (draft) => write(draft, toVector(new Vector3(fit(moved.x), fit(moved.y), fit(moved.z))));
    };
  });
}
function nudge(event: KeyboardEvent, { name, at, write }: Standing): void {
  const by = nudgeOf(event, OVER_GROUND);
  if (!by) return;
  const to = [...at] as Vector;
  to[by.axis] = tidy(to[by.axis] + by.sign * NUDGE_METRES * (event.shiftKey ? 10 : 1));
  store.change(`move ${name}`, (draft) => write(draft, to), `nudge ${name}`);
}
</script>

<template>
  <g
    v-for="one in spots"
    :key="one.key"
    class="thing"
    tabindex="0"
    role="button"
    :aria-label="`handle of ${one.name}`"
    :transform="`translate(${one.x} ${one.y})`"
    @pointerdown="pullThing($event, one)"
    @keydown="nudge($event, one)"
  >
    <rect class="grip" x="-9" y="-6" width="18" height="12" />
    <path class="foot" d="M-8 0L0 -4L8 0L0 4Z" />
    <text x="12" y="4">{{ one.name }}</text>
    <title>{{ one.name }}: drag it over the ground, with Shift up and down; arrows, Page Up and Page Down</title>
  </g>
</template>

<style scoped>
.thing {
  pointer-events: auto;
  cursor: grab;
  touch-action: none;
}
.grip {
  fill: transparent;
}
.foot {
  fill: #0c0c0d88;
  stroke: #c9c9cc;
  stroke-width: 1.3;
}
.thing:hover .foot,
.thing:focus-visible .foot {
  stroke: var(--accent);
}
.thing:focus-visible {
  outline: none;
}
text {
  visibility: hidden;
  fill: #e4e4e6;
  font-size: 12.5px;
  paint-order: stroke;
  stroke: #0c0c0dcc;
  stroke-width: 3px;
  pointer-events: none;
}
.thing:hover text,
.thing:focus-visible text {
  visibility: visible;
}
</style>
