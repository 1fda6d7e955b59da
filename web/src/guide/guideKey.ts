import { holderAt, parseSettingAddress } from '@jinx/core/document';
import { useEventListener } from '@vueuse/core';
import { shownTip } from '../help/useTip';
import { useEffectStore } from '../stores/effect';
import { closeGuide, guide, openGuide } from './useGuide';

/** Where a part of the guide is told by the address of a setting. */
const SETTING = 'setting ';
/** What stands for a part of the screen. */
const REGIONS = `[data-guide]:not([data-guide^="${SETTING}"])`;
const FIRST = 'first-ten-minutes';

/** The part of the guide that tells of something on the screen: of a setting, or of what it stands in. */
async function addressFor(element: Element | null): Promise<string> {
  const near = element?.closest<HTMLElement>('[data-address], [data-guide]')?.dataset ?? {};
  const text = near['address'] ?? (near['guide']?.startsWith(SETTING) ? near['guide'].slice(SETTING.length) : null);
  const { effect } = useEffectStore();
  const address = text && effect ? parseSettingAddress(text) : null;
  if (address) {
    const table = holderAt(effect!, address)?.table;
    const { anchorOf } = await import('./settingsTables');
    const anchor = table && anchorOf(table, address.setting);
    if (anchor) return `settings#${anchor}`;
  }
  return element?.closest<HTMLElement>(REGIONS)?.dataset['guide'] ?? FIRST;
}

/** F1 opens the guide at what has a tooltip, or else at what has the focus; pressed again it closes the guide. */
export function useGuideKey(): void {
  useEventListener(document, 'keydown', (event) => {
    if (event.key !== 'F1') return;
    event.preventDefault();
    const of = shownTip.value?.element ?? null;
    if (!of && guide.value) return closeGuide();
    void addressFor(of ?? document.activeElement).then(openGuide);
  });
}
