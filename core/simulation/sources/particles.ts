import type { Layer } from '../../document/index.ts';
import { draw, slotOf } from '../../maths/index.ts';
import type { Population } from '../population.ts';
import {
  ALONG,
  AT,
  CARRIER,
  COLOUR,
  NORMAL,
  OUT,
  VELOCITY,
  type BirthAsk,
  type SourceReader,
  type SourceSurroundings,
} from './source.ts';

const SLOT_WHO = slotOf('source/who');

/** Births where another layer's particles are: each on one of the living, as likely as on any other. */
export class ParticlesSource implements SourceReader {
  readonly rides = 'nothing';
  readonly area = 0;
  readonly #layer: string;
  readonly #populationOf: (id: string) => Population | null;

  constructor({ layer, populationOf }: SourceSurroundings) {
    this.#layer = (layer.source as Extract<Layer['source'], { kind: 'particles' }>).layer;
    this.#populationOf = populationOf;
  }

  get canBear(): boolean {
    return (this.#populationOf(this.#layer)?.living ?? 0) > 0;
  }

  /** The other layer's dead have been cleared away before: all its places are taken by the living. */
  bearInto(out: Float64Array, { key, share }: BirthAsk): void {
    const { from, position, velocity, tint, count } = this.#populationOf(this.#layer)!;
    const i = Math.floor(draw(key, SLOT_WHO) * count);
    for (let axis = 0; axis < 3; axis++) {
      const [a, b] = [from[axis]![i]!, position[axis]![i]!];
      out[AT + axis] = a + (b - a) * share;
      out[VELOCITY + axis] = velocity[axis]![i]!;
      out[COLOUR + axis] = tint[axis]![i]!;
    }
    pointInto(out);
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
  const [x, y, z] = [out[VELOCITY]!, out[VELOCITY + 1]!, out[VELOCITY + 2]!];
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
