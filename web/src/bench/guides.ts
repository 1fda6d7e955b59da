import {
  listed,
  type Effect,
  type Force,
  type Layer,
  type NumberSetting,
  type Place,
  type VectorSetting,
} from '@jinx/core/document';
import { boneNamed, type Rig } from '@jinx/core/geometry';
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

function hangs(place: Place, rig: Rig | null): { bone: number; centre: Point } {
  if (place.kind === 'bone' && rig) return { bone: boneNamed(rig, place.bone), centre: place.offset };
  return { bone: place.kind === 'figure' && rig ? 0 : -1, centre: place.offset };
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
      return arrow(reach > 0 ? centre : [0.9, 1.6, 0], [0, -0.05 * numberOf(force, 'strength'), 0]);
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

function forceGuides(force: Force, rig: Rig | null): Guide[] {
  if (force.muted) return [];
  const { bone, centre } = hangs(force.place, rig);
  const reach = numberOf(force, 'reach');
  const guides: Guide[] = [];
  const isFree = force.kind === 'gravity' && reach === 0;
  const points = Float32Array.from(drawing(force, centre));
  if (points.length > 0) guides.push({ bone: isFree ? -1 : bone, points, tone: 'force' });
  if (reach > 0) guides.push({ bone, points: Float32Array.from(circle(centre, reach, X, Z, true)), tone: 'faint' });
  return guides;
}

function sourceGuides(layer: Layer, rig: Rig | null): Guide[] {
  const { source, settings } = layer;
  if (source.kind === 'surface') return [];
  const { bone, centre } =
    source.kind === 'bone'
      ? { bone: rig ? boneNamed(rig, source.bone) : -1, centre: [0, 0, 0] as Point }
      : hangs(source.place, rig);
  const offset = settings['source.offset'].base;
  const at = (offset.kind === 'fixed' ? centre.map((x, i) => x + offset.value[i]!) : centre) as unknown as Point;
  const radius = fixed(settings['source.radius']);
  const points =
    source.kind === 'ring'
      ? circle(at, radius, X, Z)
      : source.kind === 'sphere'
        ? [...circle(at, radius, X, Z), ...circle(at, radius, X, Y), ...circle(at, radius, Z, Y)]
        : cross(at, 0.06);
  return [{ bone, points: Float32Array.from(points), tone: 'source' }];
}

/** Drawings of the chosen layer's source and forces. */
export function guidesFor(effect: Effect | null, layerId: string, rig: Rig | null): Guide[] {
  const layer = effect?.layers.byId[layerId];
  if (!layer) return [];
  const shared = listed(effect.forces)
    .filter(({ item }) => item.layers.length === 0 || item.layers.includes(layerId))
    .map(({ item }) => item.force);
  const forces = [...listed(layer.forces).map(({ item }) => item), ...shared];
  return [...sourceGuides(layer, rig), ...forces.flatMap((force) => forceGuides(force, rig))];
}
