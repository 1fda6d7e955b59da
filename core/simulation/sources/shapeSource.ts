import { LAYER_SETTINGS, type Layer, type Place } from '../../document/index.ts';
import { packRigidOf, placedInto, radians, RIGID_WORDS } from '../../maths/index.ts';
import { curveOf } from './path.ts';
import { LocalPoint, SHAPES, type Measures, type Region } from '../shapes/index.ts';
import {
  ALONG,
  AT,
  CARRIER,
  NORMAL,
  OUT,
  type BirthAsk,
  type SourceReader,
  type SourceSurroundings,
} from './source.ts';
import { VectorReader } from '../values/vectorReader.ts';
import { orderOf, regionOf, sharesInto } from './spread.ts';

type PlacedSource = Extract<Layer['source'], { place: Place }>;

/** Births on a shape or a drawn path that stands in a place. */
export class ShapeSource implements SourceReader {
  readonly rides = 'whole';
  readonly area = 0;
  readonly canBear: boolean;
  readonly #around: SourceSurroundings;
  readonly #place: Place;
  readonly #shape: (local: LocalPoint, shares: Float64Array) => void;
  readonly #order: string;
  readonly #dimensions: 1 | 2 | 3;
  readonly #isFlat: boolean;
  readonly #stretch: VectorReader;
  readonly #size: VectorReader;
  readonly #stretched = new Float64Array(3);
  readonly #measures: Measures;
  readonly #local = new LocalPoint();
  readonly #shares = new Float64Array(4);
  readonly #matrix = new Float64Array(16);
  /** Where a source that never moves stands, once that was asked for. */
  readonly #isStill: boolean;
  readonly #known = new Float64Array(RIGID_WORDS);
  #isKnown = false;

  constructor(around: SourceSurroundings) {
    const { layer, scene, group } = around;
    const source = layer.source as PlacedSource;
    const { place } = source;
    this.#around = around;
    this.#place = place;
    this.#isStill = scene.isStill(place);
    this.canBear =
      place.kind === 'bone'
        ? scene.hasBone(place.thing, place.bone)
        : place.kind !== 'thing' || scene.thing(place.thing) !== null;
    this.#order = orderOf(layer);
    this.#stretch = vectorReader('source.stretch', around);
    this.#size = vectorReader('source.size', around);
    this.#measures = {
      radius: 0,
      length: 0,
      thickness: 0,
      arc: 1,
      rise: Math.PI,
      angle: 0,
      depth: 1,
      size: new Float64Array(3),
    };
    const region = regionOf(layer) as Region;
    if (source.kind === 'path') {
      const curve = curveOf(source.points, source.closed, group.scale);
      this.#shape = (local, shares) => curve.pointInto(local, shares[0]!, shares[1]!);
      this.#dimensions = 1;
      this.#isFlat = false;
    } else {
      const shape = SHAPES[source.kind];
      this.#shape = (local, shares) => shape.pointInto(local, shares, region, this.#measures);
      this.#dimensions = shape.dimensions(region);
      this.#isFlat = shape.isFlat ?? false;
    }
  }

  #measure({ reading }: BirthAsk): void {
    const { numbers } = this.#around;
    const measures = this.#measures;
    measures.radius = numbers['source.radius'].read(reading);
    measures.length = numbers['source.length'].read(reading);
    measures.thickness = numbers['source.thickness'].read(reading);
    measures.arc = numbers['source.arc'].read(reading) / 360;
    measures.rise = radians(numbers['source.rise'].read(reading));
    measures.angle = radians(numbers['source.angle'].read(reading));
    this.#size.readInto(measures.size, reading);
    this.#stretch.readInto(this.#stretched, reading);
    measures.depth = numbers['source.depth'].read(reading) / 100;
  }

  bearInto(out: Float64Array, ask: BirthAsk): void {
    const { layer, numbers } = this.#around;
    this.#measure(ask);
    const walk = Math.max(1, numbers['source.walk'].read(ask.reading));
    sharesInto(this.#shares, this.#order, ask, this.#dimensions, walk, layer.salt);
    const local = this.#local;
    // Shares of a shape are its turn, its height or side, and its depth.
    if (this.#isFlat && this.#order === 'even') this.#shares[2] = this.#shares[1]!;
    this.#shape(local, this.#shares);
    if (ask.about) for (let k = 0; k < RIGID_WORDS; k++) out[CARRIER + k] = ask.about[k]!;
    else this.carrierInto(out, CARRIER, ask.time);
    const stretch = this.#stretched;
    if (stretch[0] !== 1 || stretch[1] !== 1 || stretch[2] !== 1) stretched(local, stretch);
    placedInto(out, AT, out, CARRIER, local.at, true);
    placedInto(out, OUT, out, CARRIER, local.out, false);
    placedInto(out, NORMAL, out, CARRIER, local.normal, false);
    placedInto(out, ALONG, out, CARRIER, local.along, false);
    if (ask.about) this.carrierInto(out, CARRIER, ask.time);
  }

  originInto(out: Float64Array, time: number): void {
    const { scene, group } = this.#around;
    scene.placeInto(this.#matrix, this.#place, time, group.matrix);
    for (let axis = 0; axis < 3; axis++) out[axis] = this.#matrix[12 + axis]!;
  }

  carrierInto(out: Float64Array, o: number, time: number): void {
    const { scene, group } = this.#around;
    if (this.#isStill && this.#isKnown) {
      for (let k = 0; k < RIGID_WORDS; k++) out[o + k] = this.#known[k]!;
      return;
    }
    scene.placeInto(this.#matrix, this.#place, time, group.matrix);
    packRigidOf(this.#matrix, out, o);
    if (!this.#isStill) return;
    this.#isKnown = true;
    for (let k = 0; k < RIGID_WORDS; k++) this.#known[k] = out[o + k]!;
  }
}

/** A stretched shape: directions along it stretch with it, directions across it the other way round. */
function stretched(local: LocalPoint, stretch: Float64Array): void {
  for (let axis = 0; axis < 3; axis++) {
    local.at[axis]! *= stretch[axis]!;
    local.along[axis]! *= stretch[axis]!;
    const inverse = stretch[axis] === 0 ? 1e6 : 1 / stretch[axis]!;
    local.normal[axis]! *= inverse;
    local.out[axis]! *= inverse;
  }
  for (const way of [local.along, local.normal, local.out]) {
    const size = Math.sqrt(way[0]! * way[0]! + way[1]! * way[1]! + way[2]! * way[2]!);
    if (size > 0) for (let axis = 0; axis < 3; axis++) way[axis]! /= size;
  }
}

const vectorReader = (name: 'source.size' | 'source.stretch', { layer, effect, group }: SourceSurroundings) =>
  new VectorReader(layer.settings[name], LAYER_SETTINGS[name], name, effect, group.scale);
