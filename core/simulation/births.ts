import { listed } from '../document/index.ts';
import type { PosedMesh } from '../geometry/index.ts';
import { add, mixVec, particleKey, scale, type Rigid, type Vec3 } from '../maths/index.ts';
import type { EffectClock } from './clock.ts';
import type { CompiledLayer } from './compiled.ts';
import type { Population } from './population.ts';
import type { Reading } from './reader.ts';
import { rideOnce } from './ride.ts';
import type { Scene } from './scene.ts';
import { carrierVelocity, withinCone, type BirthPlace } from './sources.ts';

/** The death step of what lives as long as the effect does, until that ends. */
export const NEVER = 0x7fffffff;

/** The first step at whose start particle `i` has lived its life. */
function deathStep({ birthStep, birthFraction, life }: Population, i: number, rate: number): number {
  const hasLived = (steps: number) => (steps - birthFraction[i]!) / rate >= life[i]!;
  let steps = Math.ceil(life[i]! * rate + birthFraction[i]!);
  while (steps > 1 && hasLived(steps - 1)) steps--;
  while (!hasLived(steps)) steps++;
  return birthStep[i]! + Math.max(1, steps);
}

/** Births fall on a grid this fine where they follow a moving source, whatever the step. */
const TRAVEL_GRID_PER_SECOND = 960;

export interface BirthStep {
  readonly step: number;
  /** Steps a second. */
  readonly rate: number;
  /** Start and end of the step, seconds. */
  readonly from: number;
  readonly to: number;
  readonly seed: number;
  readonly clock: EffectClock;
  readonly scene: Scene;
  /** The figure at the start and at the end of the step, as the stage will draw it. */
  readonly meshFrom: PosedMesh | null;
  readonly meshTo: PosedMesh | null;
  /** How many more may live in the whole world. */
  room: number;
}

/** Metres a source has travelled, and births given for them: the one thing about births that must be remembered. */
export interface Travel {
  metres: number;
}

interface Due {
  readonly time: number;
  readonly isStanding: boolean;
}

function dueByRate(layer: CompiledLayer, { from, to }: BirthStep): Due[] {
  const start = layer.rate.births(from);
  const end = layer.rate.births(to);
  const due: Due[] = [];
  for (let k = Math.ceil(start); k < end; k++)
    due.push({ time: from + ((k - start) / (end - start)) * (to - from), isStanding: false });
  return due;
}

function dueByBursts(layer: CompiledLayer, { from, to, clock }: BirthStep): Due[] {
  return listed(layer.bursts).flatMap(({ item }) =>
    clock
      .instantsOf(item, from, to)
      .flatMap((time) => Array.from({ length: item.count }, () => ({ time, isStanding: false }))),
  );
}

/** Walks the source's true path through the step on the fine grid, and finds where each whole share of a metre falls. */
function dueByTravel(layer: CompiledLayer, reading: Reading, { from, to, clock }: BirthStep, travel: Travel): Due[] {
  const perMetre = layer.numbers['births.perMetre'].read(reading);
  if (!(perMetre > 0)) return [];
  const below = layer.numbers['source.below'].read(reading);
  const due: Due[] = [];
  const end = Math.min(to, clock.endsAt);
  let time = from;
  let place = layer.source.origin(time);
  while (time < end) {
    const next = Math.min(end, (Math.floor(time * TRAVEL_GRID_PER_SECOND + 1e-6) + 1) / TRAVEL_GRID_PER_SECOND);
    const ahead = layer.source.origin(next);
    const moved = Math.sqrt(
      (ahead[0] - place[0]) * (ahead[0] - place[0]) +
        (ahead[1] - place[1]) * (ahead[1] - place[1]) +
        (ahead[2] - place[2]) * (ahead[2] - place[2]),
    );
    if (moved > 0 && (below <= 0 || ahead[1] < below)) {
      const before = travel.metres * perMetre;
      travel.metres += moved;
      const after = travel.metres * perMetre;
      for (let k = Math.floor(before) + 1; k <= after; k++)
        due.push({ time: time + ((k - before) / (after - before)) * (next - time), isStanding: false });
    }
    time = next;
    place = ahead;
  }
  return due;
}

function launchDirection(layer: CompiledLayer, place: BirthPlace, key: number, angle: number): Vec3 {
  const straight = layer.launch === 'axis' ? layer.axis : layer.launch === 'normal' ? place.normal : place.outward;
  const size = Math.sqrt(straight[0] * straight[0] + straight[1] * straight[1] + straight[2] * straight[2]);
  return size > 0 ? withinCone(scale(straight, 1 / size), angle, key) : [0, 0, 0];
}

/** What a particle was born on, as it stands at the end of the step. */
function carrierAtEnd(
  layer: CompiledLayer,
  place: BirthPlace,
  key: number,
  radius: number,
  { meshTo, to }: BirthStep,
): Rigid {
  return place.spot && meshTo ? meshTo.spot(place.spot) : layer.source.birth(key, to, radius).carrier;
}

/** Where a newborn is first drawn: on skin, the spot between the two poses that the stage blends. */
function drawnBirth(place: BirthPlace, share: number, { meshFrom, meshTo }: BirthStep): Vec3 {
  return place.spot && meshFrom && meshTo
    ? mixVec(meshFrom.spot(place.spot).at, meshTo.spot(place.spot).at, share)
    : place.at;
}

/**
 * Gives birth to what is due in a step, each at its own instant on the pose of that instant. The rest of the step is
 * lived like any other: the newborn ride to its end here, and the kernels move them through what is left of it.
 */
export function giveBirth(
  layer: CompiledLayer,
  population: Population,
  step: BirthStep,
  reading: Reading,
  travel: Travel,
): void {
  population.newbornFrom = population.count;
  if (!layer.source.canBear) return;
  const { clock } = step;
  reading.effectTime = clock.share(step.from);
  const due = [...dueByRate(layer, step), ...dueByBursts(layer, step), ...dueByTravel(layer, reading, step, travel)];
  const standing = step.step === 0 ? Math.floor(layer.numbers['births.standing'].read(reading)) : 0;
  for (let i = 0; i < standing; i++) due.push({ time: 0, isStanding: true });
  due.sort((a, b) => a.time - b.time || Number(b.isStanding) - Number(a.isStanding));

  const { numbers, ride } = layer;
  const span = step.to - step.from;
  for (const { time, isStanding } of due) {
    const number = population.numbered++;
    reading.key = particleKey(step.seed, layer.layer.salt, number);
    reading.effectTime = clock.share(time);
    const radius = numbers['source.radius'].read(reading);
    const place = layer.source.birth(reading.key, time, radius);
    const below = numbers['source.below'].read(reading);
    if (below > 0 && !(place.at[1] < below)) continue;
    if (population.living >= population.cap || step.room <= 0) {
      population.refused++;
      continue;
    }
    const key = reading.key;
    const at: Vec3 = layer.isOnGround ? [place.at[0], 0, place.at[2]] : place.at;
    const direction = launchDirection(
      layer,
      layer.isOnGround ? { ...place, normal: [0, 1, 0] } : place,
      key,
      numbers['motion.opening'].read(reading),
    );
    let velocity = scale(direction, numbers['motion.speed'].read(reading));
    const inherited = numbers['motion.inherit'].read(reading) / 100;
    if (inherited !== 0) velocity = add(velocity, scale(carrierVelocity(layer.source, key, time, radius), inherited));

    const share = Math.min(0.99999, Math.max(0, (time - step.from) / span));
    const drawn = layer.isOnGround ? at : drawnBirth(place, share, step);
    const i = population.count++;
    for (let axis = 0; axis < 3; axis++) {
      population.position[axis]![i] = at[axis]!;
      population.velocity[axis]![i] = velocity[axis]!;
      population.from[axis]![i] = drawn[axis]!;
    }
    if (ride > 0) rideOnce(population, i, place.carrier, carrierAtEnd(layer, place, key, radius, step), ride);
    population.birthStep[i] = step.step;
    population.birthFraction[i] = share;
    population.life[i] = isStanding ? 0 : numbers['births.life'].read(reading);
    population.deathStep[i] = isStanding ? NEVER : deathStep(population, i, step.rate);
    population.flags[i] = 0;
    population.key[i] = key;
    population.number[i] = number;
    population.spot[i] = place.spot?.triangle ?? 0;
    population.spotSecond[i] = place.spot?.second ?? 0;
    population.spotThird[i] = place.spot?.third ?? 0;
    population.born++;
    step.room--;
  }
}
