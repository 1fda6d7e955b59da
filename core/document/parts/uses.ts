import { layerOf, type PartAddress, type PartKind } from './address.ts';
import type { Id } from '../../settings/index.ts';
import type { Effect } from '../schema/index.ts';
import { assetsIn, refsTo, type FoundAsset, type FoundRef } from './foundRefs.ts';
import { usersOf } from '../namedLooks.ts';
import { addressAt, findPart, holderAt, settingAddressAt } from './parts.ts';

/** What has a name in an effect and may be used by many settings. */
export type NamedTable = 'palette' | 'measures' | 'dials';

/** What of a layer, or of the effect, a setting belongs to. */
const SETTING_OF: Readonly<Partial<Record<PartKind, string>>> = {
  force: 'force, ',
  sharedForce: 'force, ',
  step: 'look, ',
  lookStep: 'look, ',
};
/** What of the effect a place belongs to. */
const PLACE_OF: Readonly<Partial<Record<PartKind, string>>> = { sharedForce: 'force, ', surface: 'surface, ' };

function ownerName(effect: Effect, address: PartAddress): string {
  const layer = layerOf(address);
  if (layer !== null) return effect.layers.byId[layer]!.name;
  return address.kind === 'front' ? effect.fronts.byId[address.id]!.name : 'The effect';
}

/** Something that a look shows is seen in every layer that uses the look. */
function inLooks(effect: Effect, address: PartAddress, what: string): string[] {
  const layers = address.kind === 'lookStep' ? usersOf(effect, address.look) : [layerOf(address)!];
  return layers.map((id) => `${effect.layers.byId[id]!.name}: ${what}`);
}

function wordsOfRef(effect: Effect, { path, rule }: FoundRef): string[] {
  const setting = settingAddressAt(path);
  if (setting) {
    const { name } = holderAt(effect, setting)!.table[setting.setting]!;
    const owner = layerOf(setting) === null ? 'The effect' : ownerName(effect, setting);
    return [`${owner}: ${SETTING_OF[setting.kind] ?? ''}${name}`];
  }
  const address = addressAt(path);
  if (address.kind === 'palette') return [`The palette: ${findPart(effect, address)!.name}`];
  if (address.kind === 'step' || address.kind === 'lookStep') return inLooks(effect, address, 'look, gradient');
  return [`${ownerName(effect, address)}: ${PLACE_OF[address.kind] ?? ''}${rule.use}`];
}

function wordsOfAsset(effect: Effect, { path, rule }: FoundAsset): string[] {
  const address = addressAt(path);
  return address.kind === 'step' || address.kind === 'lookStep'
    ? inLooks(effect, address, rule.dialledUse!)
    : [`${ownerName(effect, address)}: ${rule.dialledUse}`];
}

/** The pictures or meshes that a dial replaces. */
export function assetsDialledBy(effect: Effect, id: Id): FoundAsset[] {
  const dial = effect.dials.byId[id];
  if (dial?.kind !== 'picture' && dial?.kind !== 'mesh') return [];
  return assetsIn(effect).filter(
    ({ rule, hash }) => rule.dialledUse !== null && rule.as === dial.kind && hash === dial.standsFor.asset,
  );
}

/** Where a colour, a measure or a dial is used, in words, each place once: as in "Motes: size". */
export function usesOf(effect: Effect, table: NamedTable, id: Id): string[] {
  const used = refsTo(effect, table, id).flatMap((found) => wordsOfRef(effect, found));
  const dialled = table === 'dials' ? assetsDialledBy(effect, id) : [];
  return [...new Set([...used, ...dialled.flatMap((found) => wordsOfAsset(effect, found))])];
}
