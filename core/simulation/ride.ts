import type { PosedMesh } from '../geometry/index.ts';
import {
  MOTION_WORDS,
  moveDirection,
  movePoint,
  motionInto,
  packRigid,
  RIGID_WORDS,
  type Rigid,
} from '../maths/index.ts';
import type { CompiledLayer } from './compiled.ts';
import type { Population } from './population.ts';

const before = new Float64Array(RIGID_WORDS);
const after = new Float64Array(RIGID_WORDS);
const motion = new Float64Array(MOTION_WORDS);

function carry({ position, velocity }: Population, i: number): void {
  movePoint(motion, position, i);
  moveDirection(motion, velocity, i);
}

/** Takes particle `i` along as its carrier goes from one place to another, by `share`. */
export function rideOnce(population: Population, i: number, from: Rigid, to: Rigid, share: number): void {
  packRigid(from, before);
  packRigid(to, after);
  motionInto(motion, before, after, share);
  carry(population, i);
}

/** Takes every living particle along with what it was born on, by the layer's ride, before forces act. */
export function rideAlong(
  layer: CompiledLayer,
  population: Population,
  from: number,
  to: number,
  meshFrom: PosedMesh | null,
  meshTo: PosedMesh | null,
): void {
  const share = layer.ride;
  const { count, spot, spotSecond, spotThird } = population;
  if (share === 0 || count === 0 || !layer.source.canBear) return;
  if (layer.layer.source.kind !== 'surface') {
    packRigid(layer.source.birth(0, from, 0).carrier, before);
    packRigid(layer.source.birth(0, to, 0).carrier, after);
    motionInto(motion, before, after, share);
    for (let i = 0; i < count; i++) carry(population, i);
    return;
  }
  if (!meshFrom || !meshTo) return;
  for (let i = 0; i < count; i++) {
    meshFrom.spotInto(before, 0, spot[i]!, spotSecond[i]!, spotThird[i]!);
    meshTo.spotInto(after, 0, spot[i]!, spotSecond[i]!, spotThird[i]!);
    motionInto(motion, before, after, share);
    carry(population, i);
  }
}
