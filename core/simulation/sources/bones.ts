import { actingValue, LAYER_SETTINGS, type Layer } from '../../document/index.ts';
import { boneNamed } from '../../geometry/index.ts';
import { cos, packRigidOf, sin } from '../../maths/index.ts';
import {
  ALONG,
  AT,
  CARRIER,
  NORMAL,
  OUT,
  SPOT,
  type BirthAsk,
  type SourceReader,
  type SourceSurroundings,
} from './source.ts';
import { orderOf, sharesInto } from './spread.ts';
import { StageThing } from '../scene/stageThing.ts';

/** Births at the joints of a thing, along its bones, or between two joints. */
export class BonesSource implements SourceReader {
  readonly rides = 'bone';
  readonly area = 0;
  readonly canBear: boolean;
  readonly #around: SourceSurroundings;
  readonly #thing: StageThing | null;
  /** Pairs of bones: births lie between the joint of the first and that of the second. */
  readonly #spans: readonly (readonly [number, number])[];
  readonly #shares = new Float64Array(4);
  readonly #matrix = new Float64Array(16);

  constructor(around: SourceSurroundings) {
    const { layer, scene } = around;
    const source = layer.source as Extract<Layer['source'], { kind: 'bones' }>;
    this.#around = around;
    this.#thing = scene.thing(source.thing);
    this.#spans = this.#thing ? spansOf(this.#thing, source.bones, alongOf(layer)) : [];
    this.canBear = this.#spans.length > 0;
  }

  bearInto(out: Float64Array, ask: BirthAsk): void {
    const { layer, numbers } = this.#around;
    const walk = Math.max(1, numbers['source.walk'].read(ask.reading));
    sharesInto(this.#shares, orderOf(layer), ask, 1, walk, layer.salt);
    const world = this.#thing!.bonesAt(ask.time);
    const place = this.#shares[0]! * this.#spans.length;
    const which = Math.min(this.#spans.length - 1, Math.floor(place));
    const [from, to] = this.#spans[which]!;
    const t = from === to ? 0 : place - which;
    let size = 0;
    for (let axis = 0; axis < 3; axis++) {
      const a = world[from * 16 + 12 + axis]!;
      const b = world[to * 16 + 12 + axis]!;
      out[AT + axis] = a + (b - a) * t;
      out[ALONG + axis] = from === to ? world[from * 16 + 4 + axis]! : b - a;
      size += out[ALONG + axis]! * out[ALONG + axis]!;
    }
    const inverse = size > 1e-18 ? 1 / Math.sqrt(size) : 0;
    for (let axis = 0; axis < 3; axis++) out[ALONG + axis]! *= inverse;
    this.#acrossInto(out, 2 * Math.PI * this.#shares[1]!);
    for (let i = 0; i < 16; i++) this.#matrix[i] = world[from * 16 + i]!;
    packRigidOf(this.#matrix, out, CARRIER);
    out[SPOT] = from;
    out[SPOT + 1] = out[SPOT + 2] = 0;
  }

  /** Writes a direction at right angles to the bone, turned about it, as outward and normal. */
  #acrossInto(out: Float64Array, turn: number): void {
    const x = out[ALONG]!;
    const y = out[ALONG + 1]!;
    const z = out[ALONG + 2]!;
    // Two directions at right angles to a unit vector (Duff and others, 2017).
    const sign = z >= 0 ? 1 : -1;
    const a = -1 / (sign + z);
    const b = x * y * a;
    const c = cos(turn);
    const s = sin(turn);
    out[OUT] = c * (1 + sign * x * x * a) + s * b;
    out[OUT + 1] = c * sign * b + s * (sign + y * y * a);
    out[OUT + 2] = -c * sign * x - s * y;
    for (let axis = 0; axis < 3; axis++) out[NORMAL + axis] = out[OUT + axis]!;
  }

  originInto(out: Float64Array, time: number): void {
    const [span] = this.#spans;
    if (!this.#thing || !span) return void out.fill(0, 0, 3);
    const world = this.#thing.bonesAt(time);
    const [bone] = span;
    for (let axis = 0; axis < 3; axis++) out[axis] = world[bone * 16 + 12 + axis]!;
  }

  carrierInto(out: Float64Array, o: number, time: number, spot: number): void {
    const world = this.#thing!.bonesAt(time);
    for (let i = 0; i < 16; i++) this.#matrix[i] = world[spot * 16 + i]!;
    packRigidOf(this.#matrix, out, o);
  }
}

const alongOf = ({ settings }: Layer): string =>
  actingValue(settings['source.along'], LAYER_SETTINGS['source.along']);

/** Chosen bones as spans; no names choose every bone. A bone runs to each of its children, or at its end to nowhere. */
function spansOf({ rig }: StageThing, names: readonly string[], along: string): [number, number][] {
  const all = rig.bones.map((_, bone) => bone);
  const chosen = names.length === 0 ? all : names.map((name) => boneNamed(rig, name)).filter((bone) => bone >= 0);
  if (along === 'joints') return chosen.map((bone) => [bone, bone]);
  if (along === 'between')
    return chosen.length < 2
      ? chosen.map((bone) => [bone, bone])
      : chosen.slice(1).map((bone, i): [number, number] => [chosen[i]!, bone]);
  return chosen.flatMap((bone) => {
    const children = all.filter((child) => rig.bones[child]!.parent === bone);
    return children.length === 0 ? [] : children.map((child): [number, number] => [bone, child]);
  });
}
