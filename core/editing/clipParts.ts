import {
  holderAt,
  inLayer,
  removeLayer,
  structuredCopy,
  withItem,
  type Effect,
  type Force,
  type Id,
  type Random32,
  type Setting,
  type SettingAddress,
} from '../document/index.ts';
import { pasteLayers, type Clip, type Pasted } from './clip.ts';

/**
 * Puts the first layer of a clip into a draft as a guest, lets `take` take over what it wants of it, and removes it again:
 * what that refers to is matched or brought along as for whole layers.
 */
export function takeFromClip(draft: Effect, clip: Clip, random: Random32, take: (guest: Id) => void): Pasted {
  const pasted = pasteLayers(draft, { ...clip, layers: clip.layers.slice(0, 1) }, 0, random);
  const [guest] = pasted.layers;
  take(guest!);
  removeLayer(draft, guest!);
  return pasted;
}

/** Gives settings what a copied one of a clip's layer has: its value, its shapers and whether it is muted. */
export function pasteSetting(
  draft: Effect,
  clip: Clip,
  from: SettingAddress,
  into: (draft: Effect) => readonly Setting[],
  random: Random32,
): Pasted {
  return takeFromClip(draft, clip, random, (guest) => {
    const copied = holderAt(draft, inLayer(from, guest))?.settings[from.setting];
    if (copied) for (const setting of into(draft)) Object.assign(setting, structuredCopy(copied));
  });
}

/** Adds a copied force of a clip's layer to layers, under one id. */
export function pasteForce(
  draft: Effect,
  clip: Clip,
  force: Id,
  to: { readonly layers: readonly Id[]; readonly id: Id },
  random: Random32,
): Pasted {
  return takeFromClip(draft, clip, random, (guest) => {
    const copied: Force | undefined = draft.layers.byId[guest]!.forces.byId[force];
    for (const id of copied ? to.layers : [])
      draft.layers.byId[id]!.forces = withItem(draft.layers.byId[id]!.forces, to.id, structuredCopy(copied!));
  });
}
