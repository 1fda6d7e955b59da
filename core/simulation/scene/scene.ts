import { listed, type Carrier, type Effect, type Place, type Source } from '../../document/index.ts';
import { boneNamed, type Rig } from '../../geometry/index.ts';
import { cos, IDENTITY, multiplyInto, sin, packRigidOf } from '../../maths/index.ts';
import { EffectClock } from '../time/clock.ts';
import { PoseCache } from './posing.ts';
import { StageThing } from './stageThing.ts';
import { Base } from './base.ts';
import { Flight } from './flight.ts';
import { rotationInto } from './groups.ts';
import { hungInto, newHung } from './places.ts';

/** What stands on the stage, as functions of time: the effect's own frame, and every thing with its pose. */
export class Scene {
  /** By id, so that no order on screen reaches what is computed. */
  readonly things: readonly StageThing[];
  /** Matrices of a frame: the bones of every thing and its feet, one thing after another, then the effect's own frame. */
  readonly bones: number;
  #clock = new EffectClock({ opening: 0, hold: { kind: 'none' }, closing: 0, preRoll: 0 });
  /** Where the whole effect stands, before what carries it moves it. */
  readonly #base: Base;
  readonly #carrier: Carrier;
  readonly #flight: Flight | null;
  readonly #matrix = new Float64Array(16);
  readonly #local = new Float64Array(16);
  readonly #copy = new Float64Array(16);
  readonly #standing = new Float64Array(16);
  readonly #placed = new Float64Array(16);
  readonly #hung = newHung();

  constructor(stage: Effect['stage'], rigs: ReadonlyMap<string, Rig>, base = new Base(), poses = new PoseCache()) {
    this.#base = base;
    let bones = 0;
    this.things = listed(stage.things)
      .sort((a, b) => (a.id < b.id ? -1 : 1))
      .flatMap(({ id, item }) => {
        const rig = rigs.get(item.asset);
        if (!rig) return [];
        const thing = new StageThing(id, poses.of(item, rig, base.first), bones, () => this.#clock, base);
        bones += rig.bones.length + 1;
        return [thing];
      });
    this.bones = bones + 1;
    const { carrier } = stage;
    this.#carrier = carrier;
    this.#flight =
      carrier.kind === 'flight'
        ? new Flight({ ...carrier, homing: 0, spread: 0 }, carrier.from, carrier.to, 0)
        : null;
  }

  /** The clock that keyed places follow. */
  get clock(): EffectClock {
    return this.#clock;
  }
  set clock(clock: EffectClock) {
    if (clock === this.#clock) return;
    this.#clock = clock;
    for (const thing of this.things) thing.forget();
  }

  /** Lets go of the poses that it shares with other scenes. */
  leave(): void {
    for (const thing of this.things) thing.leave();
  }

  thing(id: string): StageThing | null {
    return this.things.find((thing) => thing.id === id) ?? null;
  }

  hasBone(thing: string, bone: string): boolean {
    const found = this.thing(thing);
    return found !== null && boneNamed(found.rig, bone) >= 0;
  }

  /** Whether the whole effect is put elsewhere as it plays. */
  get moves(): boolean {
    return this.#base.moves;
  }

  /** Whether a place never moves. */
  isStill(place: Place): boolean {
    const isStill = this.#carrier.kind === 'still' && !this.#base.moves;
    const isOnStill = place.kind === 'world' || (place.kind === 'effect' && isStill);
    return isOnStill && place.keys.order.length === 0;
  }

  /** Writes the matrix of the effect's own frame. */
  effectInto(time: number, m: Float64Array): void {
    m.set(IDENTITY);
    const carrier = this.#carrier;
    if (carrier.kind === 'circle') {
      const { radius, speed } = carrier;
      const angle = (speed * this.clock.fieldTime(time)) / radius;
      const c = cos(angle);
      const s = sin(angle);
      m[0] = m[10] = c;
      m[2] = -s;
      m[8] = s;
      m[12] = radius * c;
      m[14] = -radius * s;
    } else if (this.#flight) this.#flight.matrixInto(m, this.clock.fieldTime(time));
    else if (carrier.kind === 'thing') this.#boneInto(carrier.thing, carrier.bone, time, m);
    // A figure that carries it stands there itself.
    if (carrier.kind === 'thing' || this.#base.isMiddle) return;
    this.#base.into(this.#standing, this.clock.stepsTo(time));
    this.#copy.set(m);
    multiplyInto(m, 0, this.#standing, 0, this.#copy, 0);
  }

  /** Writes a bone's matrix, or without a name that of the thing's feet; nothing where there is no such thing. */
  #boneInto(thingId: string, boneName: string, time: number, m: Float64Array): void {
    const thing = this.thing(thingId);
    if (!thing) return;
    const bone = boneName === '' ? -1 : boneNamed(thing.rig, boneName);
    if (bone >= 0) {
      const world = thing.bonesAt(time);
      for (let i = 0; i < 16; i++) m[i] = world[bone * 16 + i]!;
    } else thing.rootInto(time, m);
  }

  /** Writes the packed rigid place of what a source stands on as a whole: a thing's feet, the effect's frame or the world. */
  standInto(out: Float64Array, source: Source | null, time: number): void {
    const m = this.#placed;
    this.#worldInto(m);
    if (source && 'thing' in source) this.#boneInto(source.thing, '', time, m);
    else if (source && 'place' in source) {
      const { place } = source;
      if ('thing' in place) this.#boneInto(place.thing, '', time, m);
      else if (place.kind === 'effect') this.effectInto(time, m);
    }
    packRigidOf(m, out, 0);
  }

  /** Writes where the world of the document stands. */
  #worldInto(m: Float64Array): void {
    m.set(this.#base.first ?? IDENTITY);
  }

  /** Writes the matrix of a place at a time, inside the groups whose matrix is `group`. */
  placeInto(m: Float64Array, place: Place, time: number, group: Float64Array | null): void {
    if (place.kind === 'effect') this.effectInto(time, m);
    else {
      this.#worldInto(m);
      if (place.kind === 'thing') this.#boneInto(place.thing, '', time, m);
      else if (place.kind === 'bone') this.#boneInto(place.thing, place.bone, time, m);
    }
    if (group && place.kind !== 'bone') {
      this.#copy.set(m);
      multiplyInto(m, 0, this.#copy, 0, group, 0);
    }
    hungInto(this.#hung, place, this.clock.sheetTime(time));
    const { offset, turn } = this.#hung;
    rotationInto(this.#local, turn[0]!, turn[1]!, turn[2]!);
    for (let axis = 0; axis < 3; axis++) this.#local[12 + axis] = offset[axis]!;
    this.#copy.set(m);
    multiplyInto(m, 0, this.#copy, 0, this.#local, 0);
  }

  /** The matrix of the effect's own frame; valid until the next call. */
  effectAt(time: number): Float64Array {
    this.effectInto(time, this.#matrix);
    return this.#matrix;
  }

  /** Writes the matrices a frame tells at a time (from a step's end or, with `isFrom`, its start). */
  matricesInto(out: Float32Array, o: number, time: number, isFrom: boolean): void {
    for (const thing of this.things) {
      const { rig, meshFrom, meshTo, boneStart } = thing;
      out.set((isFrom ? meshFrom : meshTo).matrices, o + boneStart * 16);
      thing.rootInto(time, this.#placed);
      out.set(this.#placed, o + (boneStart + rig.bones.length) * 16);
    }
    this.effectInto(time, this.#placed);
    out.set(this.#placed, o + (this.bones - 1) * 16);
  }

  /** Poses every thing's mesh at a step's start and end. */
  pose(from: number, to: number): void {
    for (const thing of this.things) thing.pose(from, to);
  }
}
