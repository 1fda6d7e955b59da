import {
  formatAddress,
  holderAt,
  inLayer,
  isSameAddress,
  layerOf,
  nameOfSetting,
  settingsOfLayer,
  type Effect,
  type Id,
  type NumberDeclaration,
  type NumberSetting,
  type SettingAddress,
} from '@jinx/core/document';
import { ageShaper } from '../../values/shapers';

/** A line on the life sheet: one number of a layer, or of a part of it, as age shapes it. */
export interface LifeLine {
  /** Tells it from the others of its layer. */
  readonly key: string;
  readonly address: SettingAddress;
  readonly word: string;
}

/** Lines that are always there, shaped or not. */
const ALWAYS = ['life.size', 'life.opacity', 'life.intensity'];

/** The lines of a layer: size, opacity and intensity, then every other number that age shapes. */
export function linesOf(effect: Effect, layerId: Id): LifeLine[] {
  const rankOf = ({ kind, setting }: SettingAddress) =>
    kind === 'layer' && ALWAYS.includes(setting) ? ALWAYS.indexOf(setting) : ALWAYS.length;
  return settingsOfLayer(effect, layerId)
    .filter(
      ({ address, declaration, setting }) =>
        declaration.value === 'number' &&
        (rankOf(address) < ALWAYS.length || ageShaper(setting as NumberSetting) !== null),
    )
    .map(({ address, declaration }) => ({
      key: formatAddress(address),
      address,
      word: nameOfSetting(effect, address, declaration),
    }))
    .sort((a, b) => rankOf(a.address) - rankOf(b.address));
}

/** The line that was chosen, in whichever layer it was; the first where these have no such line. */
export const chosenLine = (lines: readonly LifeLine[], chosen: SettingAddress | null): LifeLine | undefined =>
  (chosen && lines.find(({ address }) => isSameAddress(address, inLayer(chosen, layerOf(address)!)))) || lines[0];

/** A line's setting and what declares it, in the layer itself; null when either is gone. */
export function readLine(
  effect: Effect,
  { address }: LifeLine,
): { setting: NumberSetting; declaration: NumberDeclaration } | null {
  const holder = holderAt(effect, address);
  const setting = holder?.settings[address.setting] as NumberSetting | undefined;
  return setting ? { setting, declaration: holder!.table[address.setting] as NumberDeclaration } : null;
}
