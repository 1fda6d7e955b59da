import {
  actingValue,
  DRAWN_SETTINGS,
  type Effect,
  type Layer,
  LAYER_SETTINGS,
  listed,
  type NumberDeclaration,
  type NumberSetting,
  sizeForKept,
  type Vector,
} from '../../document/index.ts';
import { inflated, longestSide } from '../../geometry/index.ts';
import {
  composeInto,
  cos,
  packRigidOf,
  particleKey,
  radians,
  RIGID_WORDS,
  sin,
  type Quaternion,
} from '../../maths/index.ts';
import { groupFrame } from '../scene/groups.ts';
import { frameReaders, framesOf, orientationOf, UNTURNED } from '../scene/orientation.ts';
import { newReading, setTime } from '../values/reading.ts';
import { NumberReader } from '../values/numberReader.ts';
import type { DrawnMesh } from '../sources/source.ts';
import type { MatrixInto } from '../surfaces/plane.ts';
import { carriedPoses, MeshBody } from '../surfaces/meshBody.ts';
import type { SurfaceSurroundings } from './surroundings.ts';
import { numberReaders } from '../values/layerReaders.ts';

/** The one burst of which all of a layer are born, where that is so: the time of its birth is known then. */
function onlyBurst({ bursts, settings }: Layer) {
  const acting = listed(bursts).filter(({ item }) => !item.muted);
  const { base, shapers, muted } = settings['births.rate'];
  const isSteady = !muted && (shapers.order.length > 0 || base.kind !== 'fixed' || base.value > 0);
  const only = acting[0]?.item;
  if (!only || acting.length > 1 || isSteady || only.signal !== null) return null;
  return only.times === 1 && only.stretch !== 'hold' ? only : null;
}

/** Why the mesh that a layer is drawn as can not be met; null where it can. */
export function whyNotMet(layer: Layer): string | null {
  const { drawn, source, settings } = layer;
  if (drawn.kind !== 'mesh' || drawn.meshes.order.length === 0) return 'it is not drawn as a mesh';
  const { base } = settings['births.standing'];
  if (base.kind === 'fixed' && base.value < 1 && !onlyBurst(layer))
    return 'nothing of it stands as long as the effect does, nor is born at once in one burst of the opening or the closing';
  if (source.kind !== 'point') return 'it does not stand at a point';
  const { base: turning, shapers } = settings['life.turning'];
  const isEven = turning.kind === 'fixed' && (turning.value === 0 || shapers.order.length === 0);
  if (!isEven || actingValue(settings['life.turns'], LAYER_SETTINGS['life.turns']) !== 'degrees a second')
    return 'it turns unevenly';
  const facing = actingValue(settings['appearance.facing'], LAYER_SETTINGS['appearance.facing']);
  return facing === 'ground' || facing === 'own frame' ? null : 'it turns with the view';
}

/** The mesh of a standing layer as something to be met. Null where there is none. */
export function bodyOfLayer(id: string, offset: number, around: SurfaceSurroundings): MeshBody | null {
  const mesh = drawnMeshOf(id, around, true);
  if (!mesh) return null;
  const { positions, indices } = mesh.rig.mesh;
  const grown = (vertices: Float32Array) => inflated(vertices, indices, offset * longestSide(positions));
  const other = mesh.other && { ...mesh.other, positions: grown(mesh.other.positions) };
  return new MeshBody(carriedPoses(grown(positions), indices, mesh.matrixInto, other));
}

/**
 * The mesh of a standing layer: its first mesh where its point is, turned, as large and as far taken by its other shape as
 * its first particle is drawn at a time. Before its birth it is as then, after its death as last, to be born on; what is met
 * (`isMet`) has no extent then. Null where there is none.
 */
export function drawnMeshOf(id: string, around: SurfaceSurroundings, isMet = false): DrawnMesh | null {
  const { effect, scene, clock, rigs, dials } = around;
  const layer = effect.layers.byId[id];
  if (!layer || whyNotMet(layer) !== null) return null;
  const { drawn, source } = layer;
  if (drawn.kind !== 'mesh' || source.kind !== 'point') return null;
  const rig = rigs.get(listed(drawn.meshes)[0]!.item.asset);
  if (!rig) return null;
  const { mesh } = rig;
  const group = groupFrame(effect, layer.parent);
  const numbers = numberReaders(layer, effect, group.scale, sizeForKept(effect.quality, layer));
  const shape = shapeReader(effect, drawn.settings.otherShape, group.scale);
  const [tilt, axle] = frameReaders(layer, effect).map(({ reader }) => reader);
  const [tilted, turning]: [Vector, Vector] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  const isOnGround =
    actingValue(layer.settings['appearance.facing'], LAYER_SETTINGS['appearance.facing']) === 'ground';
  const key = particleKey(effect.seed, layer.salt, 0);
  const reading = { ...newReading(), key, dials, life: Math.max(clock.length, 1e-3) };
  const { base } = layer.settings['births.standing'];
  const burst = base.kind === 'fixed' && base.value < 1 ? onlyBurst(layer) : null;
  const bornAt = burst ? clock.startOf(burst.stretch) + burst.at : clock.beginsAt;
  if (burst) {
    setTime(reading, clock, bornAt);
    reading.life = Math.max(numbers['births.life'].read(reading), 1e-3);
  }
  const isThere = (time: number) => !burst || (time >= bornAt && time <= bornAt + reading.life);
  const take = (time: number) => {
    setTime(reading, clock, time);
    const lived = Math.min(1, Math.max(0, (time - bornAt) / reading.life));
    reading.age = burst ? lived : clock.standingAge(time);
    return reading;
  };
  const metre = 1 / longestSide(mesh.positions);
  const place = new Float64Array(16);
  const rigid = new Float64Array(RIGID_WORDS);
  const isWithSource =
    (numbers['motion.ride'].isConstant && numbers['motion.ride'].low === 100) || scene.isStill(source.place);
  const matrixInto: MatrixInto = (out, time) => {
    take(time);
    scene.placeInto(place, source.place, time, group.matrix);
    const size = isMet && !isThere(time) ? 0 : numbers['life.size'].read(reading) * metre;
    const sides = (['life.width', 'life.height', 'life.depth'] as const).map(
      (name) => (numbers[name].read(reading) / 100) * size,
    );
    // On the ground a mesh stands as it was made, turned about what is up.
    const turned = numbers['life.turning'].read(reading) * Math.max(0, time - bornAt);
    const angle = radians(numbers['life.angle'].read(reading) + turned);
    packRigidOf(place, rigid, 0);
    const stood: Quaternion = isWithSource ? [rigid[0]!, rigid[1]!, rigid[2]!, rigid[3]!] : UNTURNED;
    tilt!.readInto(tilted, reading);
    axle!.readInto(turning, reading);
    const turn = isOnGround
      ? [0, sin(angle / 2), 0, cos(angle / 2)]
      : [...orientationOf(framesOf(tilted, turning), key >>> 8, angle, stood)];
    composeInto(out, 0, place, 12, turn, 0, sides, 0);
  };
  const { otherShape } = mesh;
  const other = otherShape
    ? { positions: otherShape.positions, shareAt: (time: number) => shape.read(take(time)) / 100 }
    : null;
  return { rig, beginsAt: clock.beginsAt, matrixInto, other };
}

const shapeReader = (effect: Effect, setting: NumberSetting, group: number): NumberReader =>
  new NumberReader(setting, DRAWN_SETTINGS.mesh.otherShape as NumberDeclaration, 'drawn/otherShape', effect, {
    group,
  });
