import { FORCES, type ForceKind } from '../../simulation/forces/index.ts';

/** Every setting of each kind of force. */
export const FORCE_SETTINGS = Object.fromEntries(
  Object.entries(FORCES).map(([kind, { settings }]) => [kind, settings]),
) as { readonly [K in ForceKind]: (typeof FORCES)[K]['settings'] };

/** What a kind of force is called within a sentence. */
export const forceWord = (kind: ForceKind): string => FORCES[kind].name.toLowerCase();

export { FORCE_KINDS, FORCES, type ForceKind } from '../../simulation/forces/index.ts';
