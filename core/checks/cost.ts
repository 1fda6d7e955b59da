import { listed, MOST_LIGHTS, ownerOf, shownLayers, type Effect, type Id } from '../document/index.ts';
import { lifetimes } from './lifeSamples.ts';
import type { Problem } from './mend.ts';
import { isShaped, layerMend, mostOf, said } from './numbers.ts';

/** What only the running simulation knows of cost. */
export interface ObservedCost {
  /** Living particles that the project allows. */
  readonly budget?: number;
  /** Milliseconds that a layer's step takes, by its id. */
  readonly milliseconds?: Readonly<Record<Id, number>>;
}

/** Milliseconds of one layer's step beyond which sixty steps a second are in danger. */
export const SLOW_STEP = 8;

/** How many of a layer would live at once by its rate, its standing and its bursts. */
function wouldLive(effect: Effect, layerId: Id): number {
  const { settings, bursts, population } = effect.layers.byId[layerId]!;
  if (population.kind === 'follows') return 0;
  const [, middle] = lifetimes(effect, layerId);
  const atOnce = Math.max(
    0,
    ...listed(bursts).map(({ item }) => item.most * Math.min(item.times, 1 + Math.floor(middle / item.every))),
  );
  return mostOf(settings['births.rate'], effect) * middle + mostOf(settings['births.standing'], effect) + atOnce;
}

/** A cap that is sure to be met: told before births are refused. */
export function capProblems(effect: Effect, layerId: Id, isRefusing: boolean): Problem[] {
  const { name, settings, population } = effect.layers.byId[layerId]!;
  if (isRefusing || population.kind === 'follows' || isShaped(settings['births.rate'])) return [];
  const needed = wouldLive(effect, layerId);
  const cap = mostOf(settings['births.cap'], effect);
  if (needed <= cap * 1.05) return [];
  const raised = Math.min(1_000_000, Math.ceil((needed * 1.15) / 100) * 100);
  return [
    {
      id: 'cap',
      sentence: `${name} would have ${said(needed)} living at once, and only ${cap} may: births will be refused.`,
      severity: 'doubtful',
      where: 'births',
      measure: needed,
      mend: layerMend(
        layerId,
        `Let ${raised} live`,
        (own) => (own.settings['births.cap'].base = { kind: 'fixed', value: raised }),
      ),
    },
  ];
}

/** More than the project's budget, and by which layer most. */
function overBudget(effect: Effect, { budget }: ObservedCost): Problem[] {
  if (!budget) return [];
  const counts = effect.layers.order.map((id) => ({
    id,
    count: Math.min(wouldLive(effect, id), mostOf(effect.layers.byId[id]!.settings['births.cap'], effect)),
  }));
  const all = counts.reduce((sum, { count }) => sum + count, 0);
  if (all <= budget) return [];
  const [most] = counts.sort((a, b) => b.count - a.count);
  const { name, settings } = effect.layers.byId[most!.id]!;
  const rate = settings['births.rate'].base;
  const share = Math.max(0.05, (budget - (all - most!.count)) / most!.count);
  const canThin = rate.kind === 'fixed' && rate.value > 0 && share < 1;
  const thinned = canThin ? Number((rate.value * share * 0.95).toPrecision(3)) : 0;
  return [
    {
      id: 'budget',
      sentence: `${said(all)} would live at once, over the project’s budget of ${budget}: most of them, ${said(most!.count)}, are ${name}.`,
      where: 'births',
      measure: all,
      mend: canThin
        ? layerMend(
            most!.id,
            `Bear ${said(thinned)} of ${name} a second`,
            (own) => (own.settings['births.rate'].base = { kind: 'fixed', value: thinned }),
          )
        : null,
    },
  ];
}

/** Layers that take long to compute. */
function slowLayers(effect: Effect, { milliseconds }: ObservedCost): Problem[] {
  return Object.entries(milliseconds ?? {})
    .filter(([id, ms]) => ms > SLOW_STEP && effect.layers.byId[id])
    .map(([id, ms]) => ({
      id: `slow/${id}`,
      sentence: `${effect.layers.byId[id]!.name} takes ${said(ms)} ms of every step; sixty steps a second leave 16.7 ms for all.`,
      severity: 'doubtful' as const,
      where: 'births' as const,
      measure: ms,
      mend: null,
    }));
}

/** More lights than shine at once. */
function tooManyLights(effect: Effect): Problem[] {
  const shown = shownLayers(effect);
  const lights = listed(effect.layers).filter(({ id, item }) => item.drawn.kind === 'light' && shown.has(id));
  const count = lights.reduce((sum, { id }) => sum + wouldLive(effect, ownerOf(effect, id)), 0);
  if (count <= MOST_LIGHTS * 1.2) return [];
  return [
    {
      id: 'lights',
      sentence: `About ${said(count)} lights would shine at once (${lights.map(({ item }) => item.name).join(', ')}); only the ${MOST_LIGHTS} strongest do.`,
      severity: 'doubtful',
      where: 'births',
      measure: count,
      mend: null,
    },
  ];
}

export const costProblems = (effect: Effect, observed: ObservedCost): Problem[] => [
  ...overBudget(effect, observed),
  ...slowLayers(effect, observed),
  ...tooManyLights(effect),
];
