import { EffectClock } from '../time/clock.ts';
import { Population } from './population.ts';
import type { Travel } from './due.ts';

/** In a hold without a seam every turn counts its births anew. */
export function beginTurn(
  counted: { readonly population: Pick<Population, 'numbered'>; readonly travel: Travel; turnStart: number },
  { clock, from }: { readonly clock: EffectClock; readonly from: number },
): void {
  const { population, travel } = counted;
  if (!clock.isSeamless || clock.stepOfHold(from) !== 0) return;
  if (from <= clock.opening && clock.preRoll === 0) counted.turnStart = population.numbered;
  population.numbered = counted.turnStart;
  travel.metres = 0;
}
