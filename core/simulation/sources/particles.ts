import type { Layer } from '../../document/index.ts';
import { acrossInto, cos, draw, sin, slotOf, unpackDirectionInto, valueNoise } from '../../maths/index.ts';
import {
  ALONG,
  AT,
  CARRIER,
  COLOUR,
  NORMAL,
  OUT,
  VELOCITY,
  type BirthAsk,
  type Parents,
  type SourceReader,
  type SourceSurroundings,
} from './source.ts';
import { orderOf } from './spread.ts';

const SLOT_WHO = slotOf('source/who');
const SLOT_ROUND = slotOf('source/round');
const SLOT_TURN = slotOf('source/ringTurn');

/** Births where another layer's particles are: each on one of the living, as likely as on any other. */
export class ParticlesSource implements SourceReader {
  readonly rides = 'nothing';
  readonly area = 0;
  readonly needsParents = true;
  readonly #layer: string;
  readonly #populationOf: (id: string) => Parents | null;

  readonly #around: SourceSurroundings;
  readonly #isWalking: boolean;
  readonly #normal = new Float64Array(3);
  readonly #u = new Float64Array(3);
  readonly #v = new Float64Array(3);

  constructor(around: SourceSurroundings) {
    const { layer, populationOf } = around;
    this.#around = around;
    this.#layer = (layer.source as Extract<Layer['source'], { kind: 'particles' }>).layer;
    this.#populationOf = populationOf;
    this.#isWalking = orderOf(layer) !== 'random';
  }

  get canBear(): boolean {
    return (this.#populationOf(this.#layer)?.living ?? 0) > 0;
  }

  /** The other layer's dead have been cleared away before: all its places are taken by the living. */
  bearInto(out: Float64Array, ask: BirthAsk): void {
    const { key, share } = ask;
    const population = this.#populationOf(this.#layer)!;
    const { from, position, velocity, tint, count } = population;
    const i = Math.floor(draw(key, SLOT_WHO) * count);
    for (let axis = 0; axis < 3; axis++) {
      const a = from[axis]![i]!;
      const b = position[axis]![i]!;
      out[AT + axis] = a + (b - a) * share;
      out[VELOCITY + axis] = velocity[axis]![i]!;
      out[COLOUR + axis] = tint[axis]![i]!;
    }
    pointInto(out);
    this.#ringInto(out, population, i, ask);
  }

  /** Moves a birth onto the ring about the particle that bears it: across the normal it was born with, broken by noise. */
  #ringInto(
    out: Float64Array,
    population: Parents,
    i: number,
    { key, number, time, share, reading }: BirthAsk,
  ): void {
    const { numbers, scene } = this.#around;
    const life = population.life[i]!;
    const step = scene.clock.stepOf(time);
    const seconds =
      (Math.max(0, step - population.birthStep[i]!) + share - population.birthFraction[i]!) / scene.clock.rate;
    const age = reading.age;
    reading.age = life > 0 ? Math.max(0, Math.min(1, seconds / life)) : 0;
    const radius = numbers['source.ring'].read(reading);
    reading.age = age;
    if (radius === 0) return;
    const own = population.key[i]!;
    const walk = Math.max(1, Math.floor(numbers['source.walk'].read(reading)));
    const share01 = this.#isWalking ? ((number % walk) + 0.5) / walk : draw(key, SLOT_ROUND);
    const turn = 2 * Math.PI * (share01 + draw(own, SLOT_TURN));
    unpackDirectionInto(this.#normal, 0, population.facing[i]!);
    acrossInto(this.#u, this.#v, this.#normal);
    const c = cos(turn);
    const s = sin(turn);
    const rag = numbers['source.rags'].read(reading);
    const push = numbers['source.ragged'].read(reading);
    const drift = time * numbers['source.stir'].read(reading);
    const noise = push > 0 ? push * valueNoise((radius * c) / rag, (radius * s) / rag, drift, own) : 0;
    const reach = Math.max(0, radius + noise);
    for (let axis = 0; axis < 3; axis++) {
      const outward = this.#u[axis]! * c + this.#v[axis]! * s;
      out[AT + axis]! += outward * reach;
      out[CARRIER + 4 + axis] = out[AT + axis]!;
      out[OUT + axis] = outward;
      out[ALONG + axis] = this.#v[axis]! * c - this.#u[axis]! * s;
      out[NORMAL + axis] = this.#normal[axis]!;
    }
  }

  originInto(out: Float64Array): void {
    out.fill(0, 0, 3);
  }

  carrierInto(out: Float64Array, o: number): void {
    out.fill(0, o, o + 7);
    out[o + 3] = 1;
  }
}

/** Completes a birth that has no more than a place and a velocity: outward is where it goes, or up. */
export function pointInto(out: Float64Array): void {
  const x = out[VELOCITY]!;
  const y = out[VELOCITY + 1]!;
  const z = out[VELOCITY + 2]!;
  const speed = Math.sqrt(x * x + y * y + z * z);
  for (let axis = 0; axis < 3; axis++) {
    const up = axis === 1 ? 1 : 0;
    out[OUT + axis] = speed > 0 ? out[VELOCITY + axis]! / speed : up;
    out[NORMAL + axis] = up;
    out[ALONG + axis] = axis === 0 ? 1 : 0;
    out[CARRIER + axis] = 0;
    out[CARRIER + 4 + axis] = out[AT + axis]!;
  }
  out[CARRIER + 3] = 1;
}
