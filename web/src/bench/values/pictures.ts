import { newStep, stepToChange, withItem, type Effect, type Id } from '@jinx/core/document';
import type { AssetSummary } from '../../api';

/** Endings of pictures that can be brought in. */
export const PICTURE_FILES = '.png,.jpg,.jpeg,.webp';

/** Lets a layer show a picture: in the picture step it has, else in place of a single drawn shape, else before all its steps. */
export function showPicture(
  draft: Effect,
  layerId: Id,
  { hash, name }: Pick<AssetSummary, 'hash' | 'name'>,
  newId: Id,
): void {
  const layer = draft.layers.byId[layerId];
  if (!layer) return;
  const named = layer.look.kind === 'named' ? draft.looks.byId[layer.look.look] : null;
  const look = layer.look.kind === 'own' ? layer.look : named;
  if (!look) return;
  const picture = { asset: hash, name };
  const known = look.steps.order.find((id) => look.steps.byId[id]!.kind === 'picture');
  if (known) {
    const step = stepToChange(draft, layerId, known);
    if (step?.kind === 'picture') step.picture = picture;
    return;
  }
  const step = { ...newStep('picture'), picture };
  const [only] = look.steps.order;
  const isShape = look.steps.order.length === 1 && look.steps.byId[only!]!.kind === 'drawn';
  look.steps = isShape ? { order: [newId], byId: { [newId]: step } } : withItem(look.steps, newId, step, 0);
}
