import type { Layer, Vector } from '../document/index.ts';
import { posedSpot, surfaceSampler, type Spot } from '../geometry/index.ts';
import {
  add,
  basisAround,
  draw,
  radians,
  cos,
  rotate,
  scale,
  sin,
  slotOf,
  subtract,
  unit,
  type Rigid,
  type Vec3,
} from '../maths/index.ts';
import type { GroupFrame } from './groups.ts';
import type { Scene } from './scene.ts';

/** Where one particle is born. */
export interface BirthPlace {
  readonly at: Vec3;
  readonly outward: Vec3;
  readonly normal: Vec3;
  /** What the particle rides on, as it stands at that instant. */
  readonly carrier: Rigid;
  readonly spot: Spot | null;
}

/** A layer's source: where a particle with a key is born at an instant, and how its carrier moves. */
export interface SourceReader {
  /** False where nothing can be born: no figure, no such bone, no skin. */
  readonly canBear: boolean;
  birth(key: number, time: number, radius: number): BirthPlace;
  /** The source itself, for distance travelled and height. */
  origin(time: number): Vec3;
}

const SLOT_TURN = slotOf('source/turn');
const SLOT_RISE = slotOf('source/rise');
const SLOT_DEPTH = slotOf('source/depth');
const SLOT_TRIANGLE = slotOf('source/triangle');

/** A direction as likely as any other (Archimedes' hat-box theorem). */
export function anyDirection(key: number): Vec3 {
  const y = 1 - 2 * draw(key, SLOT_RISE);
  const flat = Math.sqrt(Math.max(0, 1 - y * y));
  const turn = radians(360 * draw(key, SLOT_TURN));
  return [flat * cos(turn), y, flat * sin(turn)];
}

/** Cube root by Newton's method: `Math.cbrt` differs between engines. */
function cubeRoot(x: number): number {
  if (!(x > 0)) return 0;
  let root = x > 0.125 ? 0.75 : 0.35;
  for (let i = 0; i < 8; i++) root = (2 * root + x / (root * root)) / 3;
  return root;
}

/** The radius of a shape filled to a depth: births spread evenly over what is filled. */
function filledRadius(key: number, depth: number, dimensions: 2 | 3): number {
  const inner = 1 - depth;
  const hole = dimensions === 2 ? inner * inner : inner * inner * inner;
  const u = hole + (1 - hole) * draw(key, SLOT_DEPTH);
  return depth === 0 ? 1 : dimensions === 2 ? Math.sqrt(u) : cubeRoot(u);
}

function shapeSource(layer: Layer, scene: Scene, group: GroupFrame, offset: Vector, depth: number): SourceReader {
  const source = layer.source as Extract<Layer['source'], { place: unknown }>;
  const local = (key: number, radius: number): { out: Vec3; at: Vec3; normal: Vec3 } => {
    if (source.kind === 'point') return { out: anyDirection(key), at: [0, 0, 0], normal: [0, 1, 0] };
    if (source.kind === 'sphere') {
      const out = anyDirection(key);
      return { out, at: scale(out, radius * filledRadius(key, depth, 3)), normal: out };
    }
    const turn = radians(360 * draw(key, SLOT_TURN));
    const out: Vec3 = [cos(turn), 0, sin(turn)];
    return { out, at: scale(out, radius * filledRadius(key, depth, 2)), normal: [0, 1, 0] };
  };
  return {
    canBear: source.place.kind !== 'bone' || scene.hasBone(source.place.bone),
    birth(key, time, radius) {
      const { rigid } = scene.placeAt(source.place, time, group.matrix, offset);
      const { out, at, normal } = local(key, radius);
      return {
        at: add(rigid.at, rotate(rigid.turn, at)),
        outward: rotate(rigid.turn, out),
        normal: rotate(rigid.turn, normal),
        carrier: rigid,
        spot: null,
      };
    },
    origin: (time) => scene.placeAt(source.place, time, group.matrix, offset).rigid.at,
  };
}

function surfaceSource(layer: Layer, scene: Scene): SourceReader {
  const source = layer.source as Extract<Layer['source'], { kind: 'surface' }>;
  const rig = scene.rig;
  const sampler = rig ? surfaceSampler(rig, source.bones) : null;
  return {
    canBear: sampler !== null && sampler.area > 0,
    birth(key, time) {
      const spot = sampler!.spot(draw(key, SLOT_TRIANGLE), draw(key, SLOT_RISE), draw(key, SLOT_TURN));
      const carrier = posedSpot(rig!, scene.skinAt(time), spot);
      const normal = rotate(carrier.turn, [0, 1, 0]);
      return { at: carrier.at, outward: normal, normal, carrier, spot };
    },
    origin: (time) => scene.placeAt({ kind: 'figure', offset: [0, 0, 0] }, time, null).rigid.at,
  };
}

/** Makes the reader of a layer's source. `depth` is a share 0..1. */
export function sourceReader(
  layer: Layer,
  scene: Scene,
  group: GroupFrame,
  offset: Vector,
  depth: number,
): SourceReader {
  if (layer.source.kind === 'surface') return surfaceSource(layer, scene);
  if (layer.source.kind === 'bone')
    return shapeSource(
      { ...layer, source: { kind: 'point', place: { kind: 'bone', bone: layer.source.bone, offset: [0, 0, 0] } } },
      scene,
      group,
      offset,
      depth,
    );
  return shapeSource(layer, scene, group, offset, depth);
}

const SLOT_CONE_TURN = slotOf('launch/turn');
const SLOT_CONE_OPEN = slotOf('launch/open');

/** A direction within `degrees` of `direction`, as likely as any other there. */
export function withinCone(direction: Vec3, degrees: number, key: number): Vec3 {
  if (degrees <= 0) return direction;
  const along = 1 - draw(key, SLOT_CONE_OPEN) * (1 - cos(radians(degrees)));
  const aside = Math.sqrt(Math.max(0, 1 - along * along));
  const turn = radians(360 * draw(key, SLOT_CONE_TURN));
  const [x, y] = basisAround(direction);
  return unit(add(scale(direction, along), add(scale(x, aside * cos(turn)), scale(y, aside * sin(turn)))), direction);
}

const LOOK_BACK_SECONDS = 1 / 960;

/** How fast what a particle is born on moves at that instant, in metres a second. */
export function carrierVelocity(source: SourceReader, key: number, time: number, radius: number): Vec3 {
  const before = Math.max(0, time - LOOK_BACK_SECONDS);
  const after = before + LOOK_BACK_SECONDS;
  const moved = subtract(source.birth(key, after, radius).at, source.birth(key, before, radius).at);
  return scale(moved, 1 / LOOK_BACK_SECONDS);
}
