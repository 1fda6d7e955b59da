import { defaultSetting, type Declaration, type Setting, type SettingAddress } from '@jinx/core/document';
import type { useEffectStore } from '../../stores/effect';
import { changeSetting } from './changeSetting';

/** A setting of the chosen layer, by which it is changed in all chosen layers. */
export interface SettingAt {
  readonly address: SettingAddress;
  readonly name: string;
  readonly setting: Setting;
  readonly declaration: Declaration;
}
type Store = ReturnType<typeof useEffectStore>;
const change = (store: Store, { address }: SettingAt, label: string, recipe: (setting: Setting) => void) =>
  changeSetting<Setting>(store, address, address.setting, label, recipe);

/** Mutes it in all chosen layers, or lets it act in all again. */
export function muteSetting(store: Store, at: SettingAt): void {
  const muted = !at.setting.muted;
  change(store, at, `${muted ? 'mute' : 'unmute'} ${at.name}`, (setting) => (setting.muted = muted));
}

/** Gives it what it began with. */
export const resetSetting = (store: Store, at: SettingAt): void =>
  change(store, at, `reset ${at.name}`, (setting) => Object.assign(setting, defaultSetting(at.declaration)));
