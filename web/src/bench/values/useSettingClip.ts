import {
  holderAt,
  layerOf,
  settingSchema,
  type Declaration,
  type Effect,
  type Setting,
  type SettingAddress,
} from '@jinx/core/document';
import { pasteForce, pasteSetting, type Clip, type Pasted } from '@jinx/core/editing';
import { message } from 'ant-design-vue';
import { random32, useEffectStore } from '../../stores/effect';
import { toldOfReferences } from './toldOfReferences';
import { settingBeside } from './changeSetting';
import { copiedOf, copiedPart, type CopiedPart } from './copied';

/** What a number, a vector and a colour are measured in; the others have their choices. */
const measureOf = (declared: Declaration): string =>
  declared.value === 'number' || declared.value === 'vector'
    ? declared.unit
    : declared.value === 'choice'
      ? JSON.stringify(declared.choices)
      : '';

/** Whether a setting of one declaration may stand where another is declared. */
export function fits(copied: Setting, from: Declaration, to: Declaration): boolean {
  if (from.value !== to.value || measureOf(from) !== measureOf(to)) return false;
  return settingSchema(to).safeParse(copied).success;
}

/** Copies settings and forces of the chosen layer, and gives the chosen layers what was copied, of whichever effect. */
export function useSettingClip() {
  const store = useEffectStore();
  const tellCopied = (name: string) =>
    void message.success({ content: `${name} copied. Ctrl V on another of its kind pastes it.`, key: 'copied' });
  const clip = (): Clip => ({ layers: [store.chosenId], effect: store.effect! });

  function copySetting(address: SettingAddress, name: string): CopiedPart {
    const copied: CopiedPart = { ...clip(), part: { kind: 'setting', address }, name };
    copiedPart.value = copied;
    tellCopied(name);
    return copied;
  }
  /** What was copied, where it may stand at an address; null where it may not. */
  function pastable(address: SettingAddress, copied = copiedOf('setting')): CopiedPart<'setting'> | null {
    const to = holderAt(store.effect!, address)?.table[address.setting];
    const from = copied && holderAt(copied.effect, copied.part.address);
    // What belongs to an effect itself is not brought along into another.
    if (copied && layerOf(copied.part.address) === null && !holderAt(store.effect!, copied.part.address)) return null;
    const declared = from?.table[copied!.part.address.setting];
    const setting = from?.settings[copied!.part.address.setting];
    return to && declared && setting && fits(setting, declared, to) ? copied : null;
  }
  function tellPasted(name: string, pasted: Pasted | null): void {
    if (!pasted || store.previewed) return;
    void message.success({ content: `${name} pasted. ${toldOfReferences(pasted)}`.trim(), key: 'copied' }, 4);
  }
  /** Gives a setting of every chosen layer what was copied. */
  function pasteAt(address: SettingAddress, name: string, copied: CopiedPart<'setting'>): void {
    const targets = (draft: Effect): Setting[] =>
      (layerOf(address) === null ? [store.chosenId] : store.openIds(draft)).flatMap(
        (id) => settingBeside(draft, address, address.setting, id) ?? [],
      );
    let pasted: Pasted | null = null;
    store.change(`paste ${name}`, (draft) => {
      pasted = pasteSetting(draft, copied, copied.part.address, targets, random32);
    });
    tellPasted(copied.name, pasted);
  }

  function copyForce(id: string, name: string): void {
    copiedPart.value = { ...clip(), part: { kind: 'force', id }, name };
    void message.success({ content: `${name} copied. It can be pasted under Motion of any layer.`, key: 'copied' });
  }
  /** Adds a force that was copied to every chosen layer. */
  function pasteForceHere(copied: CopiedPart<'force'>): void {
    let pasted: Pasted | null = null;
    store.change(`paste ${copied.name}`, (draft) => {
      const to = { layers: store.openIds(draft), id: store.newId() };
      pasted = pasteForce(draft, copied, copied.part.id, to, random32);
    });
    tellPasted(copied.name, pasted);
  }
  return { copySetting, pastable, pasteAt, copyForce, pasteForceHere };
}
