import type { Place } from '../../document/index.ts';
import { RIGID_WORDS } from '../../maths/index.ts';
import type { TargetKind } from '../forces/index.ts';
import type { Scratch } from './memory.ts';
import type { Population } from './population.ts';
import type { Scene } from '../scene/scene.ts';
import { AT, CONTACT_WORDS, type Body } from '../surfaces/body.ts';
import type { CompiledLayer } from '../compile/plan.ts';
import { bodyOfThing } from '../surfaces/skinBody.ts';
import { StageThing } from '../scene/stageThing.ts';

/** Finds a place for each particle of a layer at the end of a step. */
export class Targets {
  readonly #scratch: Scratch;
  readonly #bodies = new Map<StageThing, { body: Body; posedTo: number }>();
  readonly #found = new Float64Array(CONTACT_WORDS);
  readonly #carrier = new Float64Array(RIGID_WORDS);

  constructor(scratch: Scratch) {
    this.#scratch = scratch;
  }

  /** The stage has changed: nothing of its things is kept. */
  forget(): void {
    this.#bodies.clear();
  }

  /** Writes the places into three arrays from number `first` on; returns their addresses. Who has no place stays where it is. */
  write(
    kind: TargetKind,
    place: Place,
    layer: CompiledLayer,
    population: Population,
    { from, to, scene }: { from: number; to: number; scene: Scene },
    first: number,
  ): [number, number, number] {
    const outs = [0, 1, 2].map((axis) => this.#scratch.arrays.floats(first + axis));
    const { position, count } = population;
    const body = kind === 'skin' ? this.#bodyOf(place, scene, from, to) : null;
    for (let i = 0; i < count; i++) {
      for (let axis = 0; axis < 3; axis++) outs[axis]![i] = position[axis]![i]!;
      if (body) this.#nearest(body, position, i, outs);
      else if (kind === 'own spot') this.#own(layer, population, i, to, outs);
    }
    return [0, 1, 2].map((axis) => this.#scratch.arrays.address(first + axis)) as [number, number, number];
  }

  #bodyOf(place: Place, scene: Scene, from: number, to: number): Body | null {
    const thing = 'thing' in place ? scene.thing(place.thing) : null;
    if (!thing) return null;
    const kept = this.#bodies.get(thing) ?? { body: bodyOfThing(thing), posedTo: NaN };
    this.#bodies.set(thing, kept);
    if (kept.posedTo !== to) kept.body.pose(from, to);
    kept.posedTo = to;
    return kept.body;
  }

  #nearest(body: Body, position: Population['position'], i: number, outs: readonly Float32Array[]): void {
    const found = this.#found;
    if (body.nearestInto(found, position[0][i]!, position[1][i]!, position[2][i]!, Infinity) === Infinity) return;
    for (let axis = 0; axis < 3; axis++) outs[axis]![i] = found[AT + axis]!;
  }

  #own(
    { source }: CompiledLayer,
    population: Population,
    i: number,
    to: number,
    outs: readonly Float32Array[],
  ): void {
    if (source.rides === 'nothing' || population.isOnItsOwn(i)) return;
    const { spot, spotSecond, spotThird } = population;
    source.carrierInto(this.#carrier, 0, to, spot[i]!, spotSecond[i]!, spotThird[i]!);
    for (let axis = 0; axis < 3; axis++) outs[axis]![i] = this.#carrier[4 + axis]!;
  }
}
