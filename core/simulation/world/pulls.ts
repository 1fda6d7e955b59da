import { forcesOn, ownerOf, structuredCopy, type Effect, type Id } from '../../document/index.ts';
import type { Rig } from '../../geometry/index.ts';
import { mapAxes, type Axes, type Vec3 } from '../../maths/index.ts';
import { playAlone, type PlayOptions } from './world.ts';
import type { Inputs } from './inputs.ts';
import type { Instance } from './instance.ts';

/** What one force does to one particle in one step: the step with it, less the same step without it. */
export interface Pull {
  /** The force, among its layer's or the effect's. */
  readonly id: Id;
  readonly isShared: boolean;
  /** How it changes the velocity, metres a second each second. */
  readonly change: Vec3;
  /** How far it moves it beyond that, metres a second. */
  readonly shift: Vec3;
}

/** A particle by its key, and the step that brought it to where it is. */
export interface PulledParticle {
  readonly layerId: Id;
  readonly key: number;
  readonly step: number;
}

/** Past states are of no use where one step is all that is asked. */
const HISTORY_BYTES = 1 << 20;

/** Finds out what each force does to a particle, a slice at a time, apart from what plays. */
export class PullRun {
  readonly #base: Instance;
  readonly #without: Instance;
  readonly #effect: Effect;
  readonly #owner: Id;
  readonly #key: number;
  readonly #step: number;
  #waiting: { readonly id: Id; readonly isShared: boolean }[];
  #with: Motion | null = null;
  readonly #found: Pull[] = [];

  /**
   * `step` is the one that brought the particle of that key to where it is. A world that has computed the effect spares
   * computing it again. @throws when there is no room.
   */
  constructor(
    effect: Effect,
    rigs: ReadonlyMap<string, Rig>,
    inputs: Inputs,
    { layerId, key, step }: PulledParticle,
    options: PlayOptions,
    known?: Instance,
  ) {
    this.#effect = effect;
    this.#owner = ownerOf(effect, layerId);
    this.#key = key;
    this.#step = step;
    const only = new Set([this.#owner]);
    this.#base = playAlone(effect, rigs, inputs, { ...options, only });
    if (known) this.#base.inherit(known);
    this.#without = playAlone(effect, rigs, inputs, { ...options, only, historyBytes: HISTORY_BYTES });
    this.#waiting = forcesOn(effect, this.#owner).filter(({ item }) => !item.muted);
  }

  /** Computes until all is known, or until `isOver` says so; gives what was found once it is. */
  advance(isOver: () => boolean): readonly Pull[] | null {
    const base = this.#base;
    const before = this.#step - 1;
    if (base.step !== before) base.advance(before, isOver);
    if (base.step < before) return null;
    this.#with ??= this.#stepped(this.#effect);
    while (this.#with && this.#waiting.length > 0) {
      const { id, isShared } = this.#waiting.shift()!;
      const without = this.#stepped(withoutForce(this.#effect, this.#owner, id, isShared));
      if (without) this.#found.push({ id, isShared, ...this.#between(this.#with, without) });
      if (this.#waiting.length > 0 && isOver()) return null;
    }
    return this.#found;
  }

  /** How the particle is after the step, computed with a document; null where it does not live then. */
  #stepped(effect: Effect): Motion | null {
    const world = this.#without;
    if (!world.adopt(effect, true)) return null;
    world.takeLayers(this.#base, new Set(this.#effect.layers.order));
    world.advance(this.#step);
    const population = world.population(this.#owner);
    const place = population ? population.key.subarray(0, population.count).indexOf(this.#key) : -1;
    if (!population || place < 0) return null;
    const of = (axes: Axes) => mapAxes(axes, (axis) => axis[place]!);
    return { at: of(population.position), velocity: of(population.velocity) };
  }

  #between(one: Motion, other: Motion): Pick<Pull, 'change' | 'shift'> {
    const { rate } = this.#base;
    const change = mapAxes(one.velocity, (axis, n) => (axis - other.velocity[n]!) * rate);
    // What a changed velocity moves within the step is told by the change already.
    const shift = mapAxes(one.at, (axis, n) => (axis - other.at[n]!) * rate - change[n]! / rate / 2);
    return { change, shift };
  }
}

interface Motion {
  readonly at: Vec3;
  readonly velocity: Vec3;
}

function withoutForce(effect: Effect, layerId: Id, id: Id, isShared: boolean): Effect {
  const changed = structuredCopy(effect);
  const force = isShared ? changed.forces.byId[id]!.force : changed.layers.byId[layerId]!.forces.byId[id]!;
  force.muted = true;
  return changed;
}
