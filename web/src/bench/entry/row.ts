import { nextTick } from 'vue';

/** Where chips stand in a row: the page of chapters, or a drawer, a bar, a popover of its own. */
const HOLDERS = '.page, .drawer, .words, .bar, .transport';
const CHIPS = 'button.chip';

const isInDrawer = (chip: Element, holder: Element) => {
  const drawer = chip.closest('.drawer');
  return drawer !== null && drawer !== holder && holder.contains(drawer);
};

/** The chip after one, or before it, or itself at 0, in the row that it stands in; null at the end. */
export function neighbourOf(chip: Element, by: 1 | -1 | 0): HTMLElement | null {
  const holder = chip.closest(HOLDERS);
  if (!holder) return null;
  const chips = [...holder.querySelectorAll<HTMLElement>(CHIPS)].filter(
    (other) => other === chip || (other.offsetParent !== null && !isInDrawer(other, holder)),
  );
  return chips[chips.indexOf(chip as HTMLElement) + by] ?? null;
}

/** Goes on to the next chip of the row once the page shows what was typed: `chip` gives the one it was typed into. */
export async function goOn(chip: () => Element | null | undefined, by: 1 | -1 | 0): Promise<void> {
  await nextTick();
  const from = chip();
  const next = from && neighbourOf(from, by);
  next?.focus();
  next?.scrollIntoView({ block: 'nearest' });
}
