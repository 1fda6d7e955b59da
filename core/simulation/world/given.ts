import { withTier, type Carrier, type Effect, type Tier, type Vector } from '../../document/index.ts';
import { matrixOf } from '../scene/base.ts';

/** What an instance makes its own of its document. */
export interface Given {
  /** Where random draws begin, instead of the document's own. */
  readonly seed?: number;
  /** What carries it, instead of what the document has. */
  readonly carrier?: Carrier;
  /** What its dials of numbers and its switches stand at, by id, instead of what the document has. */
  readonly dials?: Readonly<Record<string, number | boolean>>;
  /** The quality tier it is seen in, instead of the document's own. */
  readonly tier?: Tier;
  /** Where the whole effect stands, metres of the world, and how it is turned, degrees round X, then Y, then Z. */
  readonly at?: Vector;
  readonly turn?: Vector;
}

/** A document as an instance has it. */
export function withGiven(whole: Effect, { seed, carrier, dials = {}, tier }: Given): Effect {
  const effect = tier === undefined ? whole : withTier(whole, tier);
  const ids = Object.keys(dials).filter((id) => {
    const dial = effect.dials.byId[id];
    return dial?.kind === 'number' || dial?.kind === 'switch';
  });
  if (seed === undefined && carrier === undefined && ids.length === 0) return effect;
  const byId = { ...effect.dials.byId };
  for (const id of ids) byId[id] = { ...byId[id], value: dials[id] } as (typeof byId)[string];
  return {
    ...effect,
    seed: seed ?? effect.seed,
    dials: { ...effect.dials, byId },
    stage: carrier ? { ...effect.stage, carrier } : effect.stage,
  };
}

/** Where a whole effect stands at first. */
export const standingAt = ({ at = [0, 0, 0], turn = [0, 0, 0] }: Given): Float64Array | null => matrixOf(at, turn);
