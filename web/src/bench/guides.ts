import { listed, type Effect, type Force, type Layer, type NumberSetting, type Place } from '@jinx/core/document';
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

/** Arrows along a circle: which way a vortex turns. */
function spin(centre: Point, radius: number): number[] {
  return [0, 1, 2].flatMap((k) => {
    const angle = (k / 3) * 2 * Math.PI;
    const from: Point = [centre[0] + radius * Math.cos(angle), centre[1], centre[2] - radius * Math.sin(angle)];
    return arrow(from, [-0.3 * radius * Math.sin(angle), 0, -0.3 * radius * Math.cos(angle)]);
  });
}

const fixed = (setting: NumberSetting) =>
  setting.base.kind === 'fixed' ? setting.base.value : setting.base.kind === 'spread' ? setting.base.high : 0;

function hangs(place: Place, rig: Rig | null): { bone: number; centre: Point } {
  if (place.kind === 'bone' && rig) return { bone: boneNamed(rig, place.bone), centre: place.offset };
  return { bone: place.kind === 'figure' && rig ? 0 : -1, centre: place.offset };
}

function forceGuides(force: Force, rig: Rig | null): Guide[] {
  if (force.muted || force.kind === 'curl' || force.kind === 'drag') return [];
  if (force.kind === 'gravity')
    return [
      {
        bone: -1,
        points: Float32Array.from(arrow([0.9, 1.6, 0], [0, -0.05 * fixed(force.settings.strength), 0])),
        tone: 'force',
      },
    ];
  const { bone, centre } = hangs(force.place, rig);
  const reach = fixed(force.settings.reach);
  const guides: Guide[] = [{ bone, points: Float32Array.from(cross(centre, 0.05)), tone: 'force' }];
  if (reach > 0)
    guides.push({
      bone,
      points: Float32Array.from(circle(centre, reach, X, Z, true)),
      tone: 'faint',
    });
  if (force.kind === 'vortex')
    guides.push({ bone, points: Float32Array.from(spin(centre, Math.min(0.4, reach || 0.4))), tone: 'force' });
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
  return [...sourceGuides(layer, rig), ...listed(layer.forces).flatMap(({ item }) => forceGuides(item, rig))];
}
