import type { MeshSites } from '../../geometry/index.ts';
import { draw, placedInto, slotOf } from '../../maths/index.ts';
import {
  ALONG,
  AT,
  CARRIER,
  COLOUR,
  NORMAL,
  OUT,
  SPOT,
  UV,
  type BirthAsk,
  type SourceReader,
  type SourceSurroundings,
} from './source.ts';
import { orderOf } from './spread.ts';

const SLOT_TRIANGLE = slotOf('source/triangle');
const SLOT_RISE = slotOf('source/rise');
const SLOT_TURN = slotOf('source/turn');

const Y = [0, 1, 0];
const X = [1, 0, 0];

/** Births on the sites of a mesh, in the layer's order, wherever its spots are at that time. */
export class SiteBirths {
  readonly #around: SourceSurroundings;
  readonly #sites: MeshSites;
  readonly #order: string;
  readonly #carrier: Pick<SourceReader, 'carrierInto'>;
  readonly #offset = new Float64Array(3);
  readonly #spot = { triangle: 0, second: 0, third: 0 };

  constructor(around: SourceSurroundings, sites: MeshSites, carrier: Pick<SourceReader, 'carrierInto'>) {
    [this.#around, this.#sites, this.#carrier] = [around, sites, carrier];
    this.#order = orderOf(around.layer);
  }

  /** Writes a birth; `times` is how large the mesh is beside its rest mesh, in which points inside are kept. */
  bearInto(out: Float64Array, ask: BirthAsk, times = 1): void {
    const { key, number } = ask;
    const offset = this.#offset;
    offset.fill(0);
    if (this.#order === 'even') this.#sites.evenInto(this.#spot, offset, number);
    else {
      const walk = Math.max(1, this.#around.numbers['source.walk'].read(ask.reading));
      const u = this.#order === 'walking' ? ((number % walk) + 0.5) / walk : draw(key, SLOT_TRIANGLE);
      this.#sites.spotInto(this.#spot, offset, u, draw(key, SLOT_RISE), draw(key, SLOT_TURN));
    }
    if (times !== 1) for (let axis = 0; axis < 3; axis++) offset[axis]! *= times;
    const { triangle, second, third } = this.#spot;
    this.#carrier.carrierInto(out, CARRIER, ask.time, triangle, second, third);
    placedInto(out, AT, out, CARRIER, offset, true);
    placedInto(out, NORMAL, out, CARRIER, Y, false);
    placedInto(out, ALONG, out, CARRIER, X, false);
    for (let axis = 0; axis < 3; axis++) out[OUT + axis] = out[NORMAL + axis]!;
    out[SPOT] = triangle;
    out[SPOT + 1] = second;
    out[SPOT + 2] = third;
    this.#sites.looksInto(out, UV, COLOUR, triangle, second, third);
  }
}
