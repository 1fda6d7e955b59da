import type { PosedMesh, Spot } from '../geometry/index.ts';
import { carried, rotate, shareOfTurn, turnBetween, type Rigid } from '../maths/index.ts';
import type { CompiledLayer } from './compiled.ts';
import type { Population } from './population.ts';

/** Takes every living particle along with what it was born on, by the layer's ride, before forces act. */
export function rideAlong(
  layer: CompiledLayer,
  population: Population,
  from: number,
  to: number,
  meshFrom: PosedMesh | null,
  meshTo: PosedMesh | null,
): void {
  const share = layer.isOnGround
    ? 0
    : layer.numbers['motion.ride'].read({ key: 0, age: 0, life: 1, speed: 0, effectTime: 0, dials: {} }) / 100;
  if (share === 0 || population.count === 0 || !layer.source.canBear) return;
  if (layer.layer.source.kind !== 'surface') {
    const before = layer.source.birth(0, from, 0).carrier;
    const after = layer.source.birth(0, to, 0).carrier;
    for (let i = 0; i < population.count; i++) carry(population, i, before, after, share);
    return;
  }
  if (!meshFrom || !meshTo) return;
  for (let i = 0; i < population.count; i++) {
    const spot: Spot = {
      triangle: population.spot[i]!,
      second: population.spotSecond[i]!,
      third: population.spotThird[i]!,
    };
    carry(population, i, meshFrom.spot(spot), meshTo.spot(spot), share);
  }
}

function carry(population: Population, i: number, before: Rigid, after: Rigid, share: number): void {
  const { position, velocity } = population;
  const turn = shareOfTurn(turnBetween(before, after), share);
  const place = carried([position[0][i]!, position[1][i]!, position[2][i]!], before, after, turn, share);
  const speed = rotate(turn, [velocity[0][i]!, velocity[1][i]!, velocity[2][i]!]);
  for (let axis = 0; axis < 3; axis++) {
    position[axis]![i] = place[axis]!;
    velocity[axis]![i] = speed[axis]!;
  }
}
