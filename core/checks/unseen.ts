import { hasFrom, LAYER_SETTINGS, listed, nameOfPart, type Change, type Effect, type Id } from '../document/index.ts';
import { ACTS_WHEN } from './idle.ts';

/** Fields of a layer that say how it is listed and kept, not how it looks. */
const UNSEEN_FIELDS: readonly (string | undefined)[] = ['name', 'locked', 'hidden', 'solo', 'parent'];

/** The layer and the setting of it that changes are about first. */
function aboutOf(
  changes: readonly Change[],
): { layer: Id; field: string | undefined; setting: string | null } | null {
  for (const { path } of changes) {
    const [part, , layer, field, name] = path;
    if (part === 'layers' && layer !== undefined && field !== undefined)
      return { layer, field, setting: field === 'settings' ? (name ?? null) : null };
  }
  return null;
}

/**
 * Why changes that were just made cannot be seen in the picture of this instant, as a sentence; null where they can be, as
 * far as is known. `livingOf` gives how many particles of a layer live now.
 */
export function whyUnseen(
  effect: Effect,
  changes: readonly Change[],
  livingOf: (layer: Id) => number | null,
): string | null {
  const about = aboutOf(changes);
  const layer = about && effect.layers.byId[about.layer];
  if (!about || !layer || UNSEEN_FIELDS.includes(about.field)) return null;
  // That something is muted is seen by what it did.
  if (changes.every(({ path }) => path[path.length - 1] === 'muted')) return null;
  const { name } = layer;
  if (layer.hidden) return `${name} is hidden.`;
  const alone = listed(effect.layers).filter(({ item }) => item.solo);
  if (alone.length > 0 && !layer.solo) return `${alone[0]!.item.name} is seen alone; ${name} is not drawn.`;
  if (!hasFrom(effect.quality.shown, layer.quality.least))
    return `The quality that is shown, ${effect.quality.shown}, has no ${name}.`;
  const setting = about.setting as keyof typeof LAYER_SETTINGS | null;
  if (setting && layer.settings[setting]?.muted) return `${LAYER_SETTINGS[setting].name} of ${name} is muted.`;
  const [acts, why] = (setting && ACTS_WHEN[setting]) || [() => true, ''];
  if (!acts(layer)) return `${LAYER_SETTINGS[setting!].name} does not act, for ${why}.`;
  if (about.field === 'forces') {
    const path = changes.find(
      ({ path: [part, , id, field] }) => part === 'layers' && id === about.layer && field === 'forces',
    )!.path;
    const force = layer.forces.byId[path[5] ?? ''];
    if (force?.muted)
      return `${nameOfPart(effect, { kind: 'force', layer: about.layer, id: path[5]! })} of ${name} is muted.`;
  }
  return livingOf(about.layer) === 0 ? `None of ${name} lives at this instant.` : null;
}
