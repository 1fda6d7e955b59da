import type { Id } from '../../settings/index.ts';

/** Parts that stand alone in a layer, and those of which a layer may have many. */
const ALONE_IN_LAYER = ['layer', 'channels', 'drawn', 'source', 'aim', 'from', 'to'] as const;
const MANY_IN_LAYER = ['force', 'link', 'step', 'burst', 'hit'] as const;
/** Parts of the effect itself, of which there may be many. */
const MANY_IN_EFFECT = [
  'sharedForce',
  'surface',
  'front',
  'look',
  'group',
  'thing',
  'camera',
  'dial',
  'signal',
  'channel',
  'palette',
  'measure',
] as const;

/** Parts that stand alone in a document. */
const ALONE = ['effect', 'stage', 'quality'] as const;

/** An address of each of some kinds, with the ids it has. */
type Addresses<K extends string, Ids = unknown> = K extends string ? { readonly kind: K } & Ids : never;
interface InLayer {
  readonly layer: Id;
}
interface WithId {
  readonly id: Id;
}

/**
 * Names one part of a document: a layer or what belongs to one, a step of a named look, something of the effect's own, or
 * the effect. "step" is a step of a layer's look as the layer shows it; "lookStep" is the same of a named look for all.
 */
export type PartAddress =
  | Addresses<(typeof ALONE)[number]>
  | Addresses<(typeof ALONE_IN_LAYER)[number], InLayer>
  | Addresses<(typeof MANY_IN_LAYER)[number], InLayer & WithId>
  | Addresses<(typeof MANY_IN_EFFECT)[number], WithId>
  | Addresses<'lookStep', { readonly look: Id } & WithId>;
export type PartKind = PartAddress['kind'];
export type PartOf<K extends PartKind> = Extract<PartAddress, { readonly kind: K }>;

/** Parts that have settings. */
export type HolderKind =
  'layer' | 'channels' | 'drawn' | 'force' | 'link' | 'step' | 'lookStep' | 'sharedForce' | 'surface' | 'front';
export type HolderAddress = PartOf<HolderKind>;
/** Names one setting: a part, and the name that the setting has in its table. */
export type SettingAddress = HolderAddress & { readonly setting: string };

type IdName = 'layer' | 'look' | 'id';
const withIds = <K extends PartKind>(kinds: readonly K[], names: readonly IdName[]) =>
  Object.fromEntries(kinds.map((kind) => [kind, names])) as Record<K, readonly IdName[]>;

/** The ids in an address, from the outside in. */
const IDS: Readonly<Record<PartKind, readonly IdName[]>> = {
  ...withIds(ALONE, []),
  ...withIds(ALONE_IN_LAYER, ['layer']),
  ...withIds(MANY_IN_LAYER, ['layer', 'id']),
  ...withIds(MANY_IN_EFFECT, ['id']),
  lookStep: ['look', 'id'],
};

/** An address as text, for keys and menus: as in "force/LAYER/ID", or of a setting "force/LAYER/ID:strength". */
export function formatAddress(address: PartAddress | SettingAddress): string {
  const ids = address as unknown as Readonly<Record<string, string>>;
  const part = [address.kind, ...IDS[address.kind].map((name) => ids[name])].join('/');
  return 'setting' in address ? `${part}:${address.setting}` : part;
}

/** Reads what `formatAddress` wrote; null where a text is none. Whether the part is there is not looked at. */
export function parseAddress(text: string): PartAddress | SettingAddress | null {
  const [part = '', setting, ...more] = text.split(':');
  const [kind = '', ...values] = part.split('/');
  const names = Object.hasOwn(IDS, kind) ? IDS[kind as PartKind] : null;
  if (!names || names.length !== values.length || values.includes('') || setting === '' || more.length > 0)
    return null;
  const address = Object.fromEntries([['kind', kind], ...names.map((name, n) => [name, values[n]!])]) as unknown;
  return (setting === undefined ? address : { ...(address as object), setting }) as PartAddress | SettingAddress;
}

/** The address of a setting from its text; null where it is none. */
export function parseSettingAddress(text: string): SettingAddress | null {
  const found = parseAddress(text);
  return found && 'setting' in found ? (found as SettingAddress) : null;
}

/** Whether two addresses name the same. */
export const isSameAddress = (a: PartAddress | SettingAddress, b: PartAddress | SettingAddress): boolean =>
  formatAddress(a) === formatAddress(b);

/** The layer that a part belongs to; null where it is the effect's own. */
export const layerOf = (address: PartAddress): Id | null => ('layer' in address ? address.layer : null);

/** The part of another layer that has the same ids; what is the effect's own is itself. */
export const inLayer = <A extends PartAddress>(address: A, layer: Id): A =>
  'layer' in address ? { ...address, layer } : address;
