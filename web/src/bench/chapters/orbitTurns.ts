import { FORCES, type Force } from '@jinx/core/document';

/** The lone numbers of an orbit about an axis; null where one of them is a spread, a measure or taken. */
function ringOf(force: Force): { distance: number; speed: number } | null {
  if (force.kind !== 'orbit' || force.settings.about.base.value !== 'axis') return null;
  const { distance, speed } = force.settings;
  return distance.base.kind === 'fixed' && speed.base.kind === 'fixed' && distance.base.value > 0
    ? { distance: distance.base.value, speed: speed.base.value }
    : null;
}

/** How often an orbit of one distance and one speed goes round in a second; null of anything else. */
export function turnsASecond(force: Force): number | null {
  const ring = ringOf(force);
  return ring && Number((ring.speed / (2 * Math.PI * ring.distance)).toPrecision(4));
}

/** Gives an orbit the speed that goes round so often at its distance, within what speeds may be. */
export function setTurnsASecond(force: Force, turns: number): void {
  const ring = ringOf(force);
  if (!ring || force.kind !== 'orbit') return;
  const { least, most } = FORCES.orbit.settings.speed;
  const speed = Number((turns * 2 * Math.PI * ring.distance).toPrecision(6));
  force.settings.speed.base = { kind: 'fixed', value: Math.min(most, Math.max(least, speed)) };
}
