import {
  newStep,
  stepToChange,
  withItem,
  type Effect,
  type Id,
  type PictureRef,
  type Step,
} from '@jinx/core/document';
import type { AssetSummary } from '../../api';

/** Endings of pictures that can be brought in. */
export const PICTURE_FILES = '.png,.jpg,.jpeg,.webp';

/** Whether pixels of four bytes are all opaque. */
export function isOpaque(pixels: Uint8Array): boolean {
  for (let at = 3; at < pixels.length; at += 4) if (pixels[at] !== 255) return false;
  return true;
}

/** Gives a step a picture. One that covers all of its area makes opaque by its brightness, unless that was set otherwise. */
export function setPicture(
  step: Extract<Step, { picture: unknown }>,
  picture: PictureRef | null,
  covers: boolean,
): void {
  step.picture = picture;
  if (step.kind !== 'picture') return;
  const { base } = step.settings.opacity;
  if (covers && base.value === 'its alpha') base.value = 'its brightness';
}

/**
 * Lets a layer show a picture: in the picture step it has, else in place of a single drawn shape, else before all its steps.
 * `covers` says whether it is opaque throughout. Returns the step.
 */
export function showPicture(
  draft: Effect,
  layerId: Id,
  { hash, name }: Pick<AssetSummary, 'hash' | 'name'>,
  newId: Id,
  covers = false,
): Step | null {
  const layer = draft.layers.byId[layerId];
  if (!layer) return null;
  const named = layer.look.kind === 'named' ? draft.looks.byId[layer.look.look] : null;
  const look = layer.look.kind === 'own' ? layer.look : named;
  if (!look) return null;
  const picture = { asset: hash, name };
  const known = look.steps.order.find((id) => look.steps.byId[id]!.kind === 'picture');
  const step = known === undefined ? newStep('picture') : stepToChange(draft, layerId, known);
  if (step?.kind !== 'picture') return null;
  setPicture(step, picture, covers);
  if (known !== undefined) return step;
  const [only] = look.steps.order;
  const isShape = look.steps.order.length === 1 && look.steps.byId[only!]!.kind === 'drawn';
  look.steps = isShape ? { order: [newId], byId: { [newId]: step } } : withItem(look.steps, newId, step, 0);
  return step;
}
