import { holderAt, parseSettingAddress } from '@jinx/core/document';
import { clipText, readClip } from '@jinx/core/editing';
import { useEventListener } from '@vueuse/core';
import { message } from 'ant-design-vue';
import type { Ref } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { openPick, type PickItem } from '../pick/pick';
import type { CopiedPart } from '../values/copied';
import { muteSetting, resetSetting, type SettingAt } from '../values/settingActs';
import { useSettingClip } from '../values/useSettingClip';

/** A chip of a setting on the page. */
interface Found extends SettingAt {
  readonly chip: HTMLElement;
}

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLInputElement && target.type !== 'color' && target.type !== 'checkbox';

/**
 * What every chip of a setting takes, of whichever kind: a press of the right button lists it. Ctrl M mutes it in place,
 * Delete gives it what it began with, Ctrl C and Ctrl V copy and paste it, also into another effect.
 */
export function useChipActs(page: Ref<HTMLElement | undefined>): void {
  const store = useEffectStore();
  const { copySetting, pastable, pasteAt } = useSettingClip();

  function chipAt(target: EventTarget | null): Found | null {
    const chip = target instanceof HTMLElement ? target.closest<HTMLElement>('[data-address]') : null;
    const address = chip && parseSettingAddress(chip.dataset['address']!);
    const holder = address && store.effect && holderAt(store.effect, address);
    const [setting, declaration] = [holder?.settings[address!.setting], holder?.table[address!.setting]];
    return chip && address && setting && declaration
      ? { chip, address, setting, declaration, name: declaration.name }
      : null;
  }
  const mute = (found: Found) => muteSetting(store, found);
  const reset = (found: Found) => resetSetting(store, found);

  function open(found: Found): void {
    const copied = pastable(found.address);
    const items: PickItem[] = [
      {
        value: 'mute',
        text: found.setting.muted ? 'unmute it (Ctrl M)' : 'mute it (Ctrl M)',
        help: 'Muted, it does what it does where nothing is set, and keeps what is set',
      },
      { value: 'reset', text: 'reset it (Delete)' },
      { value: 'copy', text: 'copy it (Ctrl C)' },
      ...(copied ? [{ value: 'paste', text: `paste ${copied.name} (Ctrl V)` }] : []),
    ];
    const shown: Record<string, () => void> = {
      mute: () => mute(found),
      reset: () => reset(found),
      paste: () => copied && pasteAt(found.address, found.name, copied),
    };
    openPick.value = {
      label: found.name,
      items: () => items,
      chosen: null,
      anchor: found.chip.tabIndex >= 0 ? found.chip : (found.chip.querySelector('button') ?? found.chip),
      typed: '',
      choose: (value) => (value === 'copy' ? void copySetting(found.address, found.name) : shown[value]!()),
      point: (value) => store.preview(value === null || value === 'copy' ? null : shown[value]!),
    };
  }

  useEventListener(page, 'contextmenu', (event: MouseEvent) => {
    const found = isTyping(event.target) ? null : chipAt(event.target);
    if (!found) return;
    event.preventDefault();
    open(found);
  });
  useEventListener(page, 'keydown', (event: KeyboardEvent) => {
    const found = isTyping(event.target) ? null : chipAt(event.target);
    const isMute = event.ctrlKey && event.key === 'm';
    if (!found || !(isMute || event.key === 'Delete' || event.key === 'ContextMenu')) return;
    event.preventDefault();
    event.stopPropagation();
    if (isMute) mute(found);
    else if (event.key === 'Delete') reset(found);
    else open(found);
  });
  useEventListener(page, 'copy', (event: ClipboardEvent) => {
    const found = isTyping(event.target) ? null : chipAt(event.target);
    if (!found) return;
    event.preventDefault();
    event.clipboardData?.setData('text/plain', clipText(copySetting(found.address, found.name)));
  });
  useEventListener(page, 'paste', (event: ClipboardEvent) => {
    const found = isTyping(event.target) ? null : chipAt(event.target);
    const clip = found && readClip(event.clipboardData?.getData('text/plain') ?? '');
    if (clip?.part?.kind !== 'setting') return;
    event.preventDefault();
    const { address } = clip.part;
    const name = holderAt(clip.effect, address)?.table[address.setting]?.name ?? 'a setting';
    const copied = pastable(found!.address, { ...clip, part: clip.part, name } as CopiedPart<'setting'>);
    if (copied) return pasteAt(found!.address, found!.name, copied);
    void message.error(`${name} cannot be pasted into ${found!.name}: they are of different kinds.`);
  });
}
