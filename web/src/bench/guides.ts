import {
  listed,
  type Effect,
  type Force,
  type Layer,
  type NumberSetting,
  type Place,
  type VectorSetting,
} from '@jinx/core/document';
import type { StageRigs } from '@jinx/core/checks';
import { boneNamed } from '@jinx/core/geometry';
import type { Guide } from '@jinx/stage';

type Point = readonly [number, number, number];

const AROUND = 96;
/** A circle about `centre` in the plane of the axes `u` and `v`. */
function circle(centre: Point, radius: number, u: Point, v: Point, isDashed = false): number[] {
  const at = (k: number) => {
    const angle = (k / AROUND) * 2 * Math.PI;
    return centre.map((x, i) => x + radius * (Math.cos(angle) * u[i]! + Math.sin(angle) * v[i]!));
  };
  return Array.from({ length: AROUND }, (_, k) => (isDashed && k % 2 ? [] : [...at(k), ...at(k + 1)])).flat();
}
const X: Point = [1, 0, 0];
const Y: Point = [0, 1, 0];
const Z: Point = [0, 0, 1];

function cross(centre: Point, size: number): number[] {
  return [X, Y, Z].flatMap((axis) => [
    ...centre.map((x, i) => x - axis[i]! * size),
    ...centre.map((x, i) => x + axis[i]! * size),
  ]);
}

/** An arrow from `from` along `way`, with a head. */
function arrow(from: Point, way: Point): number[] {
  const tip = from.map((x, i) => x + way[i]!) as unknown as Point;
  const size = Math.hypot(...way) || 1;
  const aside: Point = Math.abs(way[1]) > 0.9 * size ? X : Y;
  const barb = (sign: number) => [...tip, ...tip.map((x, i) => x - way[i]! * 0.2 + sign * aside[i]! * size * 0.08)];
  return [...from, ...tip, ...barb(1), ...barb(-1)];
}

/** Arrows along a circle in the plane of `u` and `v`: which way something turns. */
function spin(centre: Point, radius: number, u: Point, v: Point, isBack: boolean): number[] {
  return [0, 1, 2].flatMap((k) => {
    const angle = (k / 3) * 2 * Math.PI;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const from = centre.map((x, i) => x + radius * (c * u[i]! + s * v[i]!)) as unknown as Point;
    const way = u.map((x, i) => (isBack ? -0.3 : 0.3) * radius * (c * v[i]! - s * x)) as unknown as Point;
    return arrow(from, way);
  });
}

const fixed = (setting: NumberSetting) =>
  setting.base.kind === 'fixed' ? setting.base.value : setting.base.kind === 'spread' ? setting.base.high : 0;

/** Numbers of a frame's matrices: each thing's bones, then its feet, by id; at last the effect's own frame. */
class Matrices {
  readonly #starts = new Map<string, number>();
  readonly #rigs: StageRigs;
  readonly effect: number;

  constructor(rigs: StageRigs) {
    this.#rigs = rigs;
    let start = 0;
    for (const id of [...rigs.keys()].sort()) {
      this.#starts.set(id, start);
      start += rigs.get(id)!.bones.length + 1;
    }
    this.effect = start;
  }

  of(place: Place): number {
    if (place.kind === 'effect') return this.effect;
    if (place.kind === 'world') return -1;
    const rig = this.#rigs.get(place.thing);
    if (!rig) return -1;
    const start = this.#starts.get(place.thing)!;
    if (place.kind === 'thing') return start + rig.bones.length;
    return start + Math.max(0, boneNamed(rig, place.bone));
  }
}

/** Turns a point of a place's frame into one of what the place hangs on. */
function hung({ offset, turn }: Place): (points: number[]) => Float32Array {
  const [x, y, z] = turn.map((degrees) => (degrees * Math.PI) / 180) as [number, number, number];
  const [cx, sx, cy, sy, cz, sz] = [Math.cos(x), Math.sin(x), Math.cos(y), Math.sin(y), Math.cos(z), Math.sin(z)];
  return (points) => {
    const out = new Float32Array(points.length);
    for (let i = 0; i < points.length; i += 3) {
      const [a, b, c] = [points[i]!, points[i + 1]!, points[i + 2]!];
      const [y1, z1] = [b * cx - c * sx, b * sx + c * cx];
      const [x2, z2] = [a * cy + z1 * sy, z1 * cy - a * sy];
      out[i] = offset[0] + x2 * cz - y1 * sz;
      out[i + 1] = offset[1] + x2 * sz + y1 * cz;
      out[i + 2] = offset[2] + z2;
    }
    return out;
  };
}

/** A number setting of a force by name, where its kind has it. */
function numberOf(force: Force, name: string): number {
  const setting = (force.settings as unknown as Record<string, NumberSetting | undefined>)[name];
  return setting ? fixed(setting) : 0;
}
function axisOf(force: Force): Point {
  const { axis } = force.settings as unknown as { axis?: VectorSetting };
  const way = axis?.base.kind === 'fixed' ? axis.base.value : [0, 1, 0];
  const size = Math.hypot(...way);
  return size > 0 ? (way.map((x) => x / size) as unknown as Point) : [0, 1, 0];
}
/** Two directions at right angles to an axis and to each other. */
function across(axis: Point): [Point, Point] {
  const other = Math.abs(axis[1]) > 0.9 ? X : Y;
  const cross = (a: Point, b: Point): Point => [
    a[1] * b[2] - a[2] * b[1],
    a[2] * b[0] - a[0] * b[2],
    a[0] * b[1] - a[1] * b[0],
  ];
  const u = cross(other, axis);
  const size = Math.hypot(...u);
  const first = u.map((x) => x / size) as unknown as Point;
  return [first, cross(axis, first)];
}
const along = (axis: Point, metres: number) => axis.map((x) => x * metres) as unknown as Point;
const moved = (point: Point, way: Point) => point.map((x, i) => x + way[i]!) as unknown as Point;

/** What a force does, drawn about its place: lines, and whether they are the force itself or only its reach. */
function drawing(force: Force, centre: Point): number[] {
  const axis = axisOf(force);
  const [u, v] = across(axis);
  const reach = numberOf(force, 'reach');
  switch (force.kind) {
    case 'gravity':
      return arrow(centre, [0, -0.05 * numberOf(force, 'strength'), 0]);
    case 'wind':
      return [-0.5, 0, 0.5].flatMap((side) =>
        arrow(moved(centre, along(v, side)), along(axis, 0.25 * numberOf(force, 'speed'))),
      );
    case 'attraction': {
      const half = force.settings.toward.base.value === 'line' ? numberOf(force, 'length') / 2 : 0;
      return [...cross(centre, 0.05), ...moved(centre, along(axis, -half)), ...moved(centre, along(axis, half))];
    }
    case 'vortex':
      return [
        ...cross(centre, 0.05),
        ...spin(centre, Math.min(0.4, reach || 0.4), u, v, numberOf(force, 'strength') < 0),
      ];
    case 'orbit': {
      const distance = numberOf(force, 'distance');
      const round = [
        ...circle(centre, distance, u, v),
        ...spin(centre, distance, u, v, numberOf(force, 'speed') < 0),
      ];
      return force.settings.about.base.value === 'axis' ? round : [...round, ...circle(centre, distance, u, axis)];
    }
    case 'push':
      return [X, along(X, -1), Z, along(Z, -1), Y].flatMap((way) =>
        arrow(moved(centre, along(way, 0.15)), along(way, Math.sign(numberOf(force, 'strength')) * 0.3)),
      );
    case 'velocity':
    case 'displacement': {
      const way: Point = [numberOf(force, 'x'), numberOf(force, 'y'), numberOf(force, 'z')];
      return Math.hypot(...way) > 0 ? arrow(centre, along(way, 0.25)) : [];
    }
    default:
      return reach > 0 ? cross(centre, 0.05) : [];
  }
}

const ORIGIN: Point = [0, 0, 0];

function forceGuides(force: Force, matrices: Matrices): Guide[] {
  if (force.muted) return [];
  const reach = numberOf(force, 'reach');
  // Gravity is the world's own: its arrow stands beside the effect unless it has a reach.
  const isFree = force.kind === 'gravity' && reach === 0;
  const place = hung(force.place);
  const matrix = isFree ? -1 : matrices.of(force.place);
  const lines = drawing(force, isFree ? [0.9, 1.6, 0] : ORIGIN);
  const guides: Guide[] = [];
  if (lines.length > 0)
    guides.push({ matrix, points: isFree ? Float32Array.from(lines) : place(lines), tone: 'force' });
  if (reach > 0) guides.push({ matrix, points: place(circle(ORIGIN, reach, X, Z, true)), tone: 'faint' });
  return guides;
}

const vectorOf = (setting: VectorSetting): Point =>
  setting.base.kind === 'fixed' ? [...setting.base.value] : [1, 1, 1];

/** The lines of a shape about its own middle. */
function shapeLines(layer: Layer): number[] {
  const { source, settings } = layer;
  const radius = fixed(settings['source.radius']);
  const half = fixed(settings['source.length']) / 2;
  switch (source.kind) {
    case 'ring':
    case 'disc':
      return circle(ORIGIN, radius, X, Z);
    case 'sphere':
      return [...circle(ORIGIN, radius, X, Z), ...circle(ORIGIN, radius, X, Y), ...circle(ORIGIN, radius, Z, Y)];
    case 'line':
      return [0, -half, 0, 0, half, 0];
    case 'path': {
      const ends = source.closed ? [...source.points, source.points[0]!] : source.points;
      return ends.slice(1).flatMap((point, n) => [...ends[n]!, ...point]);
    }
    case 'cylinder':
      return [
        ...circle([0, -half, 0], radius, X, Z),
        ...circle([0, half, 0], radius, X, Z),
        ...[-1, 1].flatMap((s) => [s * radius, -half, 0, s * radius, half, 0]),
      ];
    case 'cone': {
      const lean = Math.tan((fixed(settings['source.angle']) * Math.PI) / 180);
      const length = 2 * half || 0.3;
      const top = radius + length * lean;
      return [
        ...circle(ORIGIN, radius, X, Z),
        ...circle([0, length, 0], top, X, Z),
        ...[-1, 1].flatMap((s) => [s * radius, 0, 0, s * top, length, 0, 0, 0, s * radius, 0, length, s * top]),
      ];
    }
    case 'box': {
      const [x, y, z] = vectorOf(settings['source.size']).map((side) => side / 2) as [number, number, number];
      return [0, 1, 2].flatMap((axis) =>
        [0, 1, 2, 3].flatMap((corner) =>
          [-1, 1].flatMap((end) => {
            const [a, b] = [corner & 1 ? 1 : -1, corner >> 1 ? 1 : -1];
            const at = axis === 0 ? [end, a, b] : axis === 1 ? [a, end, b] : [a, b, end];
            return [at[0]! * x, at[1]! * y, at[2]! * z];
          }),
        ),
      );
    }
    default:
      return cross(ORIGIN, 0.06);
  }
}

function sourceGuides(layer: Layer, matrices: Matrices): Guide[] {
  const { source } = layer;
  if (!('place' in source)) return [];
  const stretch = vectorOf(layer.settings['source.stretch']);
  const lines = shapeLines(layer).map((x, i) => x * stretch[i % 3]!);
  return [{ matrix: matrices.of(source.place), points: hung(source.place)(lines), tone: 'source' }];
}

/** Drawings of the chosen layer's source and forces. */
export function guidesFor(effect: Effect | null, layerId: string, rigs: StageRigs): Guide[] {
  const layer = effect?.layers.byId[layerId];
  if (!layer) return [];
  const matrices = new Matrices(rigs);
  const shared = listed(effect.forces)
    .filter(({ item }) => item.layers.length === 0 || item.layers.includes(layerId))
    .map(({ item }) => item.force);
  const forces = [...listed(layer.forces).map(({ item }) => item), ...shared];
  return [...sourceGuides(layer, matrices), ...forces.flatMap((force) => forceGuides(force, matrices))];
}
