import { listed, type Effect, type Surround } from '@jinx/core/document';
import type { AssetSummary } from '../../../api';

/** What the picture alone is judged in, where that is not as the bench has it. */
export interface JudgingSet {
  readonly surround: Surround | null;
  /** The asset that stands in the first figure's place. */
  readonly figure: string | null;
  /** A kept camera by its id, or a ready one by its name. */
  readonly camera: string | null;
  readonly isRaw: boolean;
}
export const NO_JUDGING: JudgingSet = { surround: null, figure: null, camera: null, isRaw: false };

/** The effect as it is judged: in another surround, on another figure. Where neither is asked for, the effect itself. */
export function judgedIn(
  effect: Effect,
  { surround, figure }: Pick<JudgingSet, 'surround' | 'figure'>,
  assets: readonly Pick<AssetSummary, 'hash' | 'name'>[],
): Effect {
  const { stage } = effect;
  const [first] = listed(stage.things);
  const asset = first && assets.find(({ hash }) => hash === figure);
  if ((surround === null || surround === stage.surround) && (!asset || asset.hash === first.item.asset))
    return effect;
  const things = asset
    ? {
        ...stage.things,
        byId: { ...stage.things.byId, [first.id]: { ...first.item, asset: asset.hash, name: asset.name } },
      }
    : stage.things;
  return { ...effect, stage: { ...stage, surround: surround ?? stage.surround, things } };
}
