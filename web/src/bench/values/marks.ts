import {
  holderAt,
  layerOf,
  nameOfSetting,
  type Effect,
  type NumberDeclaration,
  type NumberSetting,
  type SettingAddress,
} from '@jinx/core/document';
import { formatAddress } from '@jinx/core/document';
import { shallowRef } from 'vue';
import { readEntry, spreadAbout } from '../entry/entry';
import { settingText, shownUnit } from '../entry/format';
import { settingBeside } from './changeSetting';
import { changeBase } from './measured';

/** Numbers that are marked, to be changed together, by their addresses. */
export const marks = shallowRef<ReadonlyMap<string, SettingAddress>>(new Map());

/** Marks a number, or takes its mark off. */
export function toggleMark(address: SettingAddress): void {
  const next = new Map(marks.value);
  const key = formatAddress(address);
  if (!next.delete(key)) next.set(key, address);
  marks.value = next;
}
export const clearMarks = (): void => void (marks.value = new Map());

/** What is done to a number that is marked. */
type Change = (setting: NumberSetting, declaration: NumberDeclaration, draft: Effect) => void;

/** Does the same to every marked number, in all layers given. Returns what each is now in the layer it was marked in, and what was refused. */
export function changeMarked(
  draft: Effect,
  layers: readonly string[],
  change: Change,
): { set: string[]; refused: string[] } {
  const [set, refused]: [string[], string[]] = [[], []];
  for (const address of marks.value.values()) {
    const declaration = holderAt(draft, address)?.table[address.setting] as NumberDeclaration | undefined;
    if (!declaration) continue;
    const name = nameOfSetting(draft, address, declaration);
    const owner = layerOf(address);
    for (const layer of owner === null ? [''] : layers) {
      const setting = (
        owner === null
          ? holderAt(draft, address)?.settings[address.setting]
          : settingBeside(draft, address, address.setting, layer)
      ) as NumberSetting | null | undefined;
      if (!setting) continue;
      try {
        change(setting, declaration, draft);
        if (owner === null || layer === owner)
          set.push(`${name} ${settingText(setting, declaration, () => '')}`.replace(/\u00a0/g, ' '));
      } catch (error) {
        refused.push((error as Error).message);
      }
    }
  }
  return { set, refused };
}

/** Gives a number what was typed: `35`, `*1.15`, `+-20%`. @throws an error with a sentence. */
export const byEntry =
  (text: string): Change =>
  (setting, declaration, draft) =>
    changeBase(draft, setting, readEntry(text, declaration, shownUnit(setting, declaration)));
/** Spreads a number by a share of itself; what is no single number stays. */
export const byLoosening =
  (share: number): Change =>
  (setting, declaration) => {
    if (declaration.bases.includes('spread') && setting.base.kind === 'fixed' && setting.base.value !== 0)
      setting.base = spreadAbout(setting.base, { share }, declaration);
  };
