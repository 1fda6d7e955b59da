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
import type { MatrixInto } from '../surfaces/plane.ts';
import { carriedPoses, MeshBody } from '../surfaces/meshBody.ts';
import type { SurfaceSurroundings } from './surroundings.ts';
import { numberReaders } from '../values/layerReaders.ts';

/** Why the mesh that a layer is drawn as can not be met; null where it can. */
export function whyNotMet({ drawn, source, settings }: Layer): string | null {
  if (drawn.kind !== 'mesh' || drawn.meshes.order.length === 0) return 'it is not drawn as a mesh';
  const { base } = settings['births.standing'];
  if (base.kind === 'fixed' && base.value < 1) return 'nothing of it stands as long as the effect does';
  if (source.kind !== 'point') return 'it does not stand at a point';
  const { base: turning, shapers } = settings['life.turning'];
  const isEven = turning.kind === 'fixed' && (turning.value === 0 || shapers.order.length === 0);
  if (!isEven || actingValue(settings['life.turns'], LAYER_SETTINGS['life.turns']) !== 'degrees a second')
    return 'it turns unevenly';
  const facing = actingValue(settings['appearance.facing'], LAYER_SETTINGS['appearance.facing']);
  return facing === 'ground' || facing === 'own frame' ? null : 'it turns with the view';
}

/**
 * The mesh of a standing layer as something to be met: its first mesh where its point is, turned, as large and as far
 * taken by its other shape as its first particle is drawn at a time. Null where there is none.
 */
export function bodyOfLayer(id: string, offset: number, around: SurfaceSurroundings): MeshBody | null {
  const { effect, scene, clock, rigs, dials } = around;
  const layer = effect.layers.byId[id];
  if (!layer || whyNotMet(layer) !== null) return null;
  const { drawn, source } = layer;
  if (drawn.kind !== 'mesh' || source.kind !== 'point') return null;
  const mesh = rigs.get(listed(drawn.meshes)[0]!.item.asset)?.mesh;
  if (!mesh) return null;
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
  const take = (time: number) => {
    setTime(reading, clock, time);
    reading.age = clock.standingAge(time);
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
    const size = numbers['life.size'].read(reading) * metre;
    const sides = (['life.width', 'life.height', 'life.depth'] as const).map(
      (name) => (numbers[name].read(reading) / 100) * size,
    );
    // On the ground a mesh stands as it was made, turned about what is up.
    const turned = numbers['life.turning'].read(reading) * Math.max(0, time - clock.beginsAt);
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
  const { positions, indices, otherShape } = mesh;
  const grown = (vertices: Float32Array) => inflated(vertices, indices, offset / metre);
  const other = otherShape
    ? { positions: grown(otherShape.positions), shareAt: (time: number) => shape.read(take(time)) / 100 }
    : null;
  return new MeshBody(carriedPoses(grown(positions), indices, matrixInto, other));
}

const shapeReader = (effect: Effect, setting: NumberSetting, group: number): NumberReader =>
  new NumberReader(setting, DRAWN_SETTINGS.mesh.otherShape as NumberDeclaration, 'drawn/otherShape', effect, {
    group,
  });
