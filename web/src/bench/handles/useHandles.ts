import {
  emptyCollection,
  inLayer,
  isSameAddress,
  listed,
  placeOfGroup,
  placeSetAt,
  placesOf,
  setPlace,
  withoutPlaceKey,
  withPlaceKey,
  type Effect,
  type HungValue,
  type Layer,
  type NamedPlace,
  type PartAddress,
  type Place,
  type Vector,
} from '@jinx/core/document';
import { groupFrame } from '@jinx/core/simulation';
import { Matrix4, Vector3 } from 'three';
import { computed, inject, ref, shallowRef, watch, type Ref } from 'vue';
import type { Engine } from '../../engine/engine';
import { useEffectStore } from '../../stores/effect';
import { TOOL } from '../bench';
import { Matrices } from '../guides/matrices';
import { tidy } from '../rulers/keyPlaces';
import { knobsOf, type Knob } from './knobs';
import { alongAxis, angleRound, onPlane, type Picture, type Sight } from './picture';
import { nudgeOf, type Nudge } from './nudge';
import { pull, type PullHost } from './pull';
import { nearestSeen, snapPoints } from './snapping';
import { Standing } from './standing';

/** What a drag with Ctrl, or a nudge, goes by: metres and degrees. */
const SNAP_METRES = 0.05;
const SNAP_DEGREES = 15;
const NUDGE_METRES = 0.01;
const NUDGE_DEGREES = 5;
const snapped = (value: number, by: number) => Math.round(value / by) * by;
const EMPTY = new Matrix4();

/** The handles of the chosen layer: where they stand in the picture, and what pulling each of their parts does. */
export function useHandles(engine: Engine, picture: Ref<Picture | null>, windowOf: () => Element) {
  const store = useEffectStore();
  const tool = inject(TOOL)!;
  /** The place that was chosen, in whichever layer. */
  const chosenAddress = shallowRef<PartAddress | null>(null);
  const isPulled = ref(false);

  const matrices = computed(() => (store.effect ? new Matrices(store.effect, engine.rigs.value) : null));
  const places = computed(() => {
    if (!store.effect || store.page === 'effect') return [];
    if (store.groupId) return [placeOfGroup(store.effect, store.groupId)];
    // What stands where a dial says is moved by the dial.
    return placesOf(store.effect, store.chosenId).filter(({ place }) => place.kind !== 'dial');
  });
  const placeAt = (address: PartAddress) => {
    const here = inLayer(address, store.chosenId);
    return places.value.find((place) => isSameAddress(place.address, here));
  };
  const chosen = computed<NamedPlace | null>(
    () => (chosenAddress.value && placeAt(chosenAddress.value)) ?? places.value[0] ?? null,
  );
  /** The effect's own frame is always asked for: with it comes how far the camera has gone along. */
  const asked = computed(() => [
    ...new Set([
      matrices.value?.effect ?? 0,
      ...places.value.map(({ place }) => matrices.value!.of(place)),
      // Those of other sources, which handles snap to.
      ...listed(store.effect?.layers ?? emptyCollection<Layer>()).flatMap(({ item: { source } }) =>
        'place' in source && source.place.kind !== 'dial' ? [matrices.value!.of(source.place)] : [],
      ),
    ]),
  ]);
  const askedText = computed(() => asked.value.join());
  watch(askedText, () => engine.stage.track(asked.value), { immediate: true });

  function matrixOf(place: Place): Matrix4 | null {
    const number = matrices.value?.of(place) ?? -1;
    if (number < 0) return EMPTY;
    const at = asked.value.indexOf(number) * 16;
    const words = engine.tracked.value.matrices;
    if (at < 0 || words.length < at + 16 || words[at + 15] === 0) return null;
    return new Matrix4().fromArray(words, at);
  }
  /** A place as it stands in the group that it stands in. */
  function standingOf({ place, group }: Pick<NamedPlace, 'place' | 'group'>, seconds = engine.state.sheetTime) {
    const matrix = matrixOf(place);
    const { matrix: within } = groupFrame(store.effect!, group);
    if (!matrix) return null;
    return new Standing(within ? matrix.clone().multiply(new Matrix4().fromArray(within)) : matrix, place, seconds);
  }
  const standing = computed(() => (chosen.value ? standingOf(chosen.value) : null));
  const isGroup = computed(() => chosen.value?.address.kind === 'group');
  const knobs = computed(() =>
    store.effect && chosen.value ? knobsOf(store.effect, store.chosenId, chosen.value.address) : [],
  );
  /** Points of a drawn path, which are pulled one by one. */
  const points = computed<readonly Vector[]>(() => {
    const source = store.chosen?.source;
    return chosen.value?.address.kind === 'source' && source?.kind === 'path' ? source.points : [];
  });
  const keys = computed(() => (chosen.value ? listed(chosen.value.place.keys) : []));

  /** How a place is written, whose values are for the instant at which this is called, whenever they come. */
  function placing() {
    const { address, place } = chosen.value!;
    const [keyId, seconds] = [store.newId(), engine.state.sheetTime];
    return (value: HungValue) => (draft: Effect) =>
      setPlace(draft, address, placeSetAt(place, seconds, value, keyId));
  }
  const sightOf: PullHost['sight'] = (event) => {
    const box = windowOf().getBoundingClientRect();
    return picture.value!.sight(event.clientX - box.left, event.clientY - box.top);
  };
  function host(label: string, click?: () => void): PullHost {
    let stepsBefore = 0;
    return {
      sight: sightOf,
      begin: () => keys.value.length > 0 && engine.playback.pause(),
      dragBegins: () => {
        isPulled.value = true;
        stepsBefore = store.past.length;
        engine.simulation.compare(store.chosenId);
      },
      change: (recipe) => store.change(label, recipe, `handle ${label}`),
      end: (isGivenUp) => {
        isPulled.value = false;
        engine.simulation.compare(null);
        store.endGesture();
        if (isGivenUp && store.past.length > stepsBefore) store.undo();
      },
      ...(click ? { click } : {}),
    };
  }
  /** What a handle that is pulled now snaps to. */
  const bordersNow = () => snapPoints(store.effect!, store.chosenId, standingOf, engine.rigs.value);
  const nameOf = (address: PartAddress) => placeAt(address)?.name ?? 'place';

  /** How far the pointer has come since a sight: along an axis of the offset, or freely in the plane of the picture. */
  function wayFrom(start: Sight, origin: Vector3, axis: Vector3 | null): (sight: Sight) => Vector3 | null {
    if (axis) {
      const from = alongAxis(start, origin, axis);
      return (sight) => {
        const to = alongAxis(sight, origin, axis);
        return from === null || to === null ? null : axis.clone().multiplyScalar(to - from);
      };
    }
    const normal = picture.value!.ahead;
    const from = onPlane(start, origin, normal);
    return (sight) => {
      const to = onPlane(sight, origin, normal);
      return from && to && to.sub(from);
    };
  }
  const snappedVector = (vector: Vector, isSnapped: boolean): Vector =>
    isSnapped ? (vector.map((x) => snapped(x, SNAP_METRES)) as Vector) : vector;

  /** Moves a place freely, or along one axis of its offset. */
  function pullPlace(event: PointerEvent, address: PartAddress, axis: number | null = null): void {
    chosenAddress.value = address;
    pull(event, host(`move the ${nameOf(address)}`), (start) => {
      const at = standing.value!;
      const way = wayFrom(start, at.origin, axis === null ? null : at.offsetAxis(axis));
      const write = placing();
      const borders = bordersNow();
      return (sight, isSnapped) => {
        const delta = way(sight);
        if (!delta) return null;
        const near = isSnapped ? nearestSeen(borders, at.origin.add(delta), picture.value!) : null;
        const moved = near ? at.movedBy(near.clone().sub(at.origin)) : snappedVector(at.movedBy(delta), isSnapped);
        // Along one axis, the others keep their last digit.
        const offset = at.hung.offset.map((x, n) => (axis === null || axis === n ? moved[n]! : x)) as Vector;
        return write({ offset, turn: at.hung.turn });
      };
    });
  }
  /** Degrees that the pointer has gone round an axis since a sight, however often. */
  function turnFrom(start: Sight, origin: Vector3, round: Vector3): (sight: Sight) => number {
    let last = onPlane(start, origin, round);
    let degrees = 0;
    return (sight) => {
      const now = onPlane(sight, origin, round);
      if (last && now) degrees += angleRound(origin, round, last, now);
      last = now;
      return degrees;
    };
  }
  function pullTurn(event: PointerEvent, axis: number): void {
    pull(event, host(`turn the ${chosen.value!.name}`), (start) => {
      const at = standing.value!;
      const write = placing();
      const [origin, round] = [at.origin, at.turnAxis(axis)];
      const turned = turnFrom(start, origin, round);
      return (sight, isSnapped) => {
        const degrees = turned(sight);
        const turn = [...at.hung.turn] as Vector;
        turn[axis]! += degrees;
        if (isSnapped) turn[axis] = snapped(turn[axis]!, SNAP_DEGREES);
        return write({ offset: at.hung.offset, turn });
      };
    });
  }

  function pullKnob(event: PointerEvent, knob: Knob): void {
    pull(event, host(`size the ${chosen.value!.name}`), (start) => {
      const at = standing.value!;
      const [origin, way] = [at.origin, at.innerWay(knob.way)];
      const put = (by: number, isSnapped: boolean) => (draft: Effect) => {
        const value = knob.valueAfter(by);
        knob.write(draft, isSnapped ? snapped(value, knob.isAngle ? SNAP_DEGREES : SNAP_METRES) : value);
      };
      if (knob.isAngle) {
        const turned = turnFrom(start, origin, way);
        return (sight, isSnapped) => put(turned(sight), isSnapped);
      }
      // What stands at nothing is drawn a little off its middle, where it can be taken hold of.
      const through = at.inner(knob.at);
      const from = alongAxis(start, through, way);
      const borders = bordersNow();
      return (sight, isSnapped) => {
        const to = alongAxis(sight, through, way);
        if (to === null || from === null) return null;
        const end = through.clone().addScaledVector(way, to - from);
        const near = isSnapped ? nearestSeen(borders, end, picture.value!) : null;
        return near ? put(near.clone().sub(through).dot(way) / way.lengthSq(), false) : put(to - from, isSnapped);
      };
    });
  }

  function setPoint(draft: Effect, layerId: string, n: number, point: Vector): void {
    const source = draft.layers.byId[layerId]?.source;
    if (source?.kind === 'path' && source.points[n]) source.points[n] = point.map(tidy) as Vector;
  }
  function pullPoint(event: PointerEvent, n: number): void {
    pull(event, host('move a point of the path'), (start) => {
      const at = standing.value!;
      const layerId = store.chosenId;
      const point = points.value[n]!;
      const way = wayFrom(start, at.inner(point), null);
      return (sight, isSnapped) => {
        const delta = way(sight);
        return (
          delta && ((draft) => setPoint(draft, layerId, n, snappedVector(at.pointMovedBy(point, delta), isSnapped)))
        );
      };
    });
  }
  /** Adds a point halfway to the next, or takes one away. */
  function changePoints(what: 'add' | 'remove', n: number): void {
    store.changeLayer(what === 'add' ? 'add a point to the path' : 'take a point off the path', ({ source }) => {
      if (source.kind !== 'path') return;
      if (what === 'remove' && source.points.length > 2) source.points.splice(n, 1);
      const [a, b] = [source.points[n], source.points[n + 1] ?? source.points[n - 1]];
      if (what === 'add' && a && b) source.points.splice(n + 1, 0, a.map((x, axis) => (x + b[axis]!) / 2) as Vector);
    });
  }

  /** Pulls a key along; pressed alone, the playhead goes to it. */
  function pullKey(event: PointerEvent, keyId: string): void {
    const { address, place, group } = chosen.value!;
    const key = place.keys.byId[keyId]!;
    pull(
      event,
      host('move a key', () => seekTo(key.at)),
      (start) => {
        const at = standingOf({ place, group }, key.at)!;
        const way = wayFrom(start, at.origin, null);
        return (sight, isSnapped) => {
          const delta = way(sight);
          if (!delta) return null;
          const offset = snappedVector(at.movedBy(delta), isSnapped);
          return (draft) => setPlace(draft, address, placeSetAt(place, key.at, { offset, turn: key.turn }, keyId));
        };
      },
    );
  }
  const seekTo = (seconds: number) => engine.playback.seekSheet(store.effect!.stretches, seconds);

  /** Makes a key of where the chosen place stands now; the first one makes it move over the effect's time. */
  function keyHere(): void {
    const at = standing.value;
    if (!at || !chosen.value || isGroup.value) return;
    const { address, place, name } = chosen.value;
    const seconds = engine.state.sheetTime;
    store.change(`key the ${name}`, (draft) =>
      setPlace(draft, address, withPlaceKey(place, seconds, at.hung, store.newId())),
    );
  }
  function removeKey(keyId: string): void {
    const { address, place } = chosen.value!;
    store.change('take a key away', (draft) => setPlace(draft, address, withoutPlaceKey(place, keyId)));
  }

  const nudged = (from: Readonly<Vector>, { axis, sign }: Nudge, isFar: boolean) =>
    from.map((x, n) => (n === axis ? tidy(x + sign * NUDGE_METRES * (isFar ? 10 : 1)) : x)) as Vector;
  /** Arrows move or turn the chosen place along x and y, Page Up and Page Down along z; ten, or three, times as far with Shift. */
  function nudge(event: KeyboardEvent): void {
    const at = standing.value;
    const by = at && tool.value !== 'size' ? nudgeOf(event) : null;
    if (!at || !by) return;
    const { offset, turn } = at.hung;
    const turned = turn.map((x, n) => (n === by.axis ? x + by.sign * NUDGE_DEGREES * (event.shiftKey ? 3 : 1) : x));
    const value: HungValue =
      tool.value === 'move'
        ? { offset: nudged(offset, by, event.shiftKey), turn }
        : { offset, turn: turned as Vector };
    const name = chosen.value!.name;
    store.change(`nudge the ${name}`, placing()(value), `nudge ${name}`);
  }
  /** Moves a point of a drawn path, in its own frame, by an arrow. */
  function nudgePoint(event: KeyboardEvent, n: number): void {
    const by = nudgeOf(event);
    if (!by) return;
    const [layerId, point] = [store.chosenId, nudged(points.value[n]!, by, event.shiftKey)];
    store.change('nudge a point of the path', (draft) => setPoint(draft, layerId, n, point), `nudge point ${n}`);
  }
  /** Moves where the chosen place is at one of its keys by an arrow. */
  function nudgeKey(event: KeyboardEvent, keyId: string): void {
    const by = nudgeOf(event);
    if (!by) return;
    const { address, place } = chosen.value!;
    const { at, offset, turn } = place.keys.byId[keyId]!;
    const value: HungValue = { offset: nudged(offset, by, event.shiftKey), turn };
    store.change(
      'nudge a key',
      (draft) => setPlace(draft, address, placeSetAt(place, at, value, keyId)),
      `nudge ${keyId}`,
    );
  }
  /** Right and up make what a knob sizes larger, left and down smaller. */
  function nudgeKnob(event: KeyboardEvent, knob: Knob): void {
    const nudge = nudgeOf(event);
    if (!nudge) return;
    const by = nudge.sign * (knob.isAngle ? NUDGE_DEGREES : NUDGE_METRES) * (event.shiftKey ? 10 : 1);
    const to = knob.isAngle ? knob.value + by : knob.valueAfter(by);
    store.change(`size the ${chosen.value!.name}`, (draft) => knob.write(draft, to), `size ${knob.id}`);
  }

  return {
    tool,
    places,
    chosen,
    standing,
    knobs,
    points,
    keys,
    isPulled,
    isGroup,
    choose: (address: PartAddress) => (chosenAddress.value = address),
    standingOf,
    sightOf,
    pullPlace,
    pullTurn,
    pullKnob,
    pullPoint,
    changePoints,
    pullKey,
    keyHere,
    removeKey,
    seekTo,
    nudge,
    nudgePoint,
    nudgeKey,
    nudgeKnob,
  };
}
