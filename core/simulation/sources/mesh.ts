import type { Layer } from '../../document/index.ts';
import { meshSites, type MeshSites, type SiteRegion } from '../../geometry/index.ts';
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
import { orderOf, regionOf } from './spread.ts';
import { StageThing } from '../scene/stageThing.ts';

const SLOT_TRIANGLE = slotOf('source/triangle');
const SLOT_RISE = slotOf('source/rise');
const SLOT_TURN = slotOf('source/turn');

const Y = [0, 1, 0];
const X = [1, 0, 0];

/** Births on the surface, the vertices or edges of a thing's mesh, or inside it, as it moves and bends. */
export class MeshSource implements SourceReader {
  readonly rides = 'spot';
  readonly canBear: boolean;
  readonly area: number;
  readonly #around: SourceSurroundings;
  readonly #thing: StageThing | null;
  readonly #sites: MeshSites | null;
  readonly #order: string;
  readonly #root = new Float64Array(16);
  readonly #offset = new Float64Array(3);
  readonly #spot = { triangle: 0, second: 0, third: 0 };

  constructor(around: SourceSurroundings) {
    const { layer, scene } = around;
    const source = layer.source as Extract<Layer['source'], { kind: 'mesh' }>;
    this.#around = around;
    this.#thing = scene.thing(source.thing);
    this.#order = orderOf(layer);
    this.#sites = this.#thing && meshSites(this.#thing.rig, source.bones, regionOf(layer) as SiteRegion);
    this.area = this.#sites?.area ?? 0;
    this.canBear = this.#sites !== null && !this.#sites.isEmpty;
  }

  bearInto(out: Float64Array, ask: BirthAsk): void {
    const sites = this.#sites!;
    const { key, number } = ask;
    const offset = this.#offset;
    offset.fill(0);
    if (this.#order === 'even') sites.evenInto(this.#spot, offset, number);
    else {
      const walk = Math.max(1, this.#around.numbers['source.walk'].read(ask.reading));
      const u = this.#order === 'walking' ? ((number % walk) + 0.5) / walk : draw(key, SLOT_TRIANGLE);
      sites.spotInto(this.#spot, offset, u, draw(key, SLOT_RISE), draw(key, SLOT_TURN));
    }
    const { triangle, second, third } = this.#spot;
    this.carrierInto(out, CARRIER, ask.time, triangle, second, third);
    placedInto(out, AT, out, CARRIER, offset, true);
    placedInto(out, NORMAL, out, CARRIER, Y, false);
    placedInto(out, ALONG, out, CARRIER, X, false);
    for (let axis = 0; axis < 3; axis++) out[OUT + axis] = out[NORMAL + axis]!;
    out[SPOT] = triangle;
    out[SPOT + 1] = second;
    out[SPOT + 2] = third;
    sites.looksInto(out, UV, COLOUR, triangle, second, third);
  }

  originInto(out: Float64Array, time: number): void {
    this.#thing!.rootInto(time, this.#root);
    for (let axis = 0; axis < 3; axis++) out[axis] = this.#root[12 + axis]!;
  }

  restInto(out: Float64Array, spot: number, second: number, third: number): void {
    const { positions, indices } = this.#thing!.rig.mesh;
    const a = indices[spot * 3]! * 3;
    const b = indices[spot * 3 + 1]! * 3;
    const c = indices[spot * 3 + 2]! * 3;
    const first = 1 - second - third;
    for (let axis = 0; axis < 3; axis++)
      out[axis] = positions[a + axis]! * first + positions[b + axis]! * second + positions[c + axis]! * third;
  }

  carrierInto(out: Float64Array, o: number, time: number, spot: number, second: number, third: number): void {
    this.#thing!.spotInto(out, o, time, spot, second, third);
  }
}
