import {
  actingValue,
  layersMeeting,
  listed,
  SURFACE_SETTINGS,
  type Effect,
  type NumberDeclaration,
  type NumberSetting,
  type Surface,
  settingsByName,
  tableByName,
} from '../../document/index.ts';
import { inflated, type MeetingSide } from '../../geometry/index.ts';
import { slotOf } from '../../maths/index.ts';
import { newReading, setTime } from '../values/reading.ts';
import { NumberReader } from '../values/numberReader.ts';
import { BallBody } from '../surfaces/ball.ts';
import { bodyOfLayer } from './drawnMesh.ts';
import type { Body } from '../surfaces/body.ts';
import { carriedPoses, MeshBody } from '../surfaces/meshBody.ts';
import { PlaneBody, type MatrixInto } from '../surfaces/plane.ts';
import type { SurfaceSurroundings } from './surroundings.ts';
import { bodyOfThing } from '../surfaces/skinBody.ts';
import type { SurfaceAct, BoundSurface } from './plan.ts';

const CUBE = Float32Array.from({ length: 24 }, (_, i) => ((Math.floor(i / 3) >> (i % 3)) & 1) - 0.5);
/** Two triangles a face, their fronts outward. */
const CUBE_FACES = Uint32Array.of(
  ...[0, 2, 3, 0, 3, 1, 4, 5, 7, 4, 7, 6, 0, 1, 5, 0, 5, 4],
  ...[2, 6, 7, 2, 7, 3, 0, 4, 6, 0, 6, 2, 1, 3, 7, 1, 7, 5],
);

/** Every surface of an effect that is not muted and has something to be met, by id. */
export function bindSurfaces(around: SurfaceSurroundings): BoundSurface[] {
  return listed(around.effect.surfaces)
    .filter(({ item }) => !item.muted)
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .flatMap(({ id, item }) => bound(id, item, around) ?? []);
}

function bound(id: string, surface: Surface, around: SurfaceSurroundings): BoundSurface | null {
  const number = numbersOf(id, surface, around);
  const choice = (name: 'act' | 'side') => actingValue(surface.settings[name], SURFACE_SETTINGS.ground[name]);
  const act = choice('act') as SurfaceAct;
  const offset = number('offset').atDials(around.dials);
  const body = bodyOf(surface, number, act === 'keep' ? 0 : offset, around);
  if (!body) return null;
  return {
    id,
    layers: layersMeeting(around.effect, surface),
    act,
    side: choice('side') as MeetingSide,
    body,
    bounce: number('bounce', 0.01),
    friction: number('friction', 0.01),
    roughness: number('roughness', 0.01),
    scatterSlot: slotOf(`surface/${id}/scatter`),
    offset,
    share: number('share'),
    shareSlot: slotOf(`surface/${id}/share`),
    within: number('within'),
    now: { share: 1, within: Infinity },
  };
}

/** Which surfaces can be met: what particles stick to is counted among these. */
export const surfacesMet = (effect: Effect): string =>
  listed(effect.surfaces)
    .flatMap(({ id, item }) => (item.muted ? [] : [id]))
    .sort()
    .join();

type Numbered = (name: string, times?: number) => NumberReader;

function numbersOf(id: string, surface: Surface, { effect }: SurfaceSurroundings): Numbered {
  const table = tableByName<NumberDeclaration>(SURFACE_SETTINGS[surface.kind]);
  const settings = settingsByName<NumberSetting>(surface);
  return (name, times = 1) =>
    new NumberReader(settings[name]!, table[name]!, `surface/${id}/${name}`, effect, { times });
}

function bodyOf(surface: Surface, number: Numbered, offset: number, around: SurfaceSurroundings): Body | null {
  const { scene, clock, rigs, dials } = around;
  if (surface.kind === 'layer') return bodyOfLayer(surface.layer, offset, around);
  if (surface.kind === 'thing') {
    const thing = scene.thing(surface.thing);
    if (!thing) return null;
    return bodyOfThing(thing, offset);
  }
  const matrixInto: MatrixInto = (out, time) => scene.placeInto(out, surface.place, time, null);
  if (surface.kind === 'ground') return new PlaneBody(matrixInto, offset);
  const reading = { ...newReading(), dials };
  const at = (reader: NumberReader) => (time: number) => {
    setTime(reading, clock, time);
    return reader.read(reading);
  };
  if (surface.kind === 'sphere') return new BallBody(matrixInto, at(number('radius')), offset);
  const rig = surface.kind === 'mesh' ? rigs.get(surface.asset) : null;
  if (rig === undefined) return null;
  const sizes = ['wide', 'tall', 'deep'].map((name) => at(number(name)));
  const beside = surface.kind === 'box' ? 2 * offset : 0;
  const sizedInto: MatrixInto = (out, time) => {
    matrixInto(out, time);
    sizes.forEach((size, axis) => {
      const times = size(time) + beside;
      for (let k = 0; k < 3; k++) out[axis * 4 + k]! *= times;
    });
  };
  if (!rig) return new MeshBody(carriedPoses(CUBE, CUBE_FACES, sizedInto));
  const { positions, indices } = rig.mesh;
  return new MeshBody(carriedPoses(inflated(positions, indices, offset), indices, sizedInto));
}
