import { FORCES, unmeasured, type Effect, type Force } from '@jinx/core/document';

/** The lone numbers of an orbit about an axis; null where one of them is a spread or taken. */
function ringOf(force: Force, effect: Pick<Effect, 'measures'>): { distance: number; speed: number } | null {
  if (force.kind !== 'orbit' || force.settings.about.base.value !== 'axis') return null;
  const [distance, speed] = [force.settings.distance.base, force.settings.speed.base].map((base) =>
    unmeasured(base, effect),
  );
  return distance?.kind === 'fixed' && speed?.kind === 'fixed' && distance.value > 0
    ? { distance: distance.value, speed: speed.value }
    : null;
}

/** How often an orbit of one distance and one speed goes round in a second; null of anything else. */
export function turnsASecond(force: Force, effect: Pick<Effect, 'measures'>): number | null {
  const ring = ringOf(force, effect);
  return ring && Number((ring.speed / (2 * Math.PI * ring.distance)).toPrecision(4));
}

/** Gives an orbit the speed that goes round so often at its distance, within what speeds may be. */
export function setTurnsASecond(force: Force, turns: number, effect: Pick<Effect, 'measures'>): void {
  const ring = ringOf(force, effect);
  if (!ring || force.kind !== 'orbit') return;
  const { least, most } = FORCES.orbit.settings.speed;
  const speed = Number((turns * 2 * Math.PI * ring.distance).toPrecision(6));
  force.settings.speed.base = { kind: 'fixed', value: Math.min(most, Math.max(least, speed)) };
}
