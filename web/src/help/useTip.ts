import { useEventListener } from '@vueuse/core';
import { onBeforeUnmount, shallowRef, type Ref } from 'vue';

/** Milliseconds that something is pointed at before its tip comes; and within which the next comes at once. */
const BEFORE_MILLISECONDS = 450;
const AGAIN_MILLISECONDS = 300;
/** Who walks from chip to chip by key and types is not kept from seeing the next ones. */
const BEFORE_FOCUSED_MILLISECONDS = 1200;

/** The tip that is shown: of which element, and what its `title` says. */
export interface Tip {
  readonly element: HTMLElement;
  readonly title: string;
}
/** The tip that is shown on the page. */
export const shownTip = shallowRef<Tip | null>(null);
/** Pixels between an element and its tip, and of one movement of the pointer from one into the other. */
const GAP = 10;
const MOST_STRIDE = 48;
const SOURCES = '[title], [data-address]';
const TIP_ID = 'jinx-tip';

/**
 * One tip for the whole page, of whatever has a `title` or the address of a setting, for the pointer and for keys. While it is
 * due or shown, the element has no `title`, since the browser would show it too; it is described by the tip instead. What
 * lies under a tip can be pressed.
 */
export function useTip(): { tip: Readonly<Ref<Tip | null>>; id: string } {
  const tip = shownTip;
  let over: HTMLElement | null = null;
  let taken = '';
  let timer = 0;
  let hiddenAt = 0;

  function giveBack(): void {
    if (!over) return;
    // A title that came meanwhile is the newer one.
    if (taken !== '' && !over.hasAttribute('title')) over.setAttribute('title', taken);
    if (over.getAttribute('aria-describedby') === TIP_ID) over.removeAttribute('aria-describedby');
    over = null;
    taken = '';
  }
  function hide(): void {
    window.clearTimeout(timer);
    if (tip.value) hiddenAt = performance.now();
    tip.value = null;
    isHeld = false;
    giveBack();
  }
  function take(element: HTMLElement, first = BEFORE_MILLISECONDS): void {
    hide();
    over = element;
    taken = element.getAttribute('title') ?? '';
    element.removeAttribute('title');
    const isNext = performance.now() - hiddenAt < AGAIN_MILLISECONDS && first === BEFORE_MILLISECONDS;
    const wait = isNext ? 0 : first;
    timer = window.setTimeout(() => {
      if (!element.isConnected) return giveBack();
      if (!element.hasAttribute('aria-describedby')) element.setAttribute('aria-describedby', TIP_ID);
      tip.value = { element, title: taken };
    }, wait);
  }
  const sourceOf = (target: EventTarget | null) =>
    target instanceof Element ? target.closest<HTMLElement>(SOURCES) : null;

  /** Where the pointer was before. */
  let last = { x: 0, y: 0 };
  /** Whether the pointer has gone from the element straight into its tip, which then stays while the pointer is in it. */
  let isHeld = false;
  function isInTip({ clientX: x, clientY: y }: PointerEvent): boolean {
    const box = document.getElementById(TIP_ID)?.closest('.ant-tooltip')?.getBoundingClientRect();
    if (!box || !tip.value || !(isHeld || Math.hypot(x - last.x, y - last.y) < MOST_STRIDE)) return false;
    return x > box.left - GAP && x < box.right + GAP && y > box.top - GAP && y < box.bottom + GAP;
  }
  function point(event: PointerEvent): void {
    if (over && over === nearest(event.target)) return void (isHeld = false);
    if ((isHeld = isInTip(event))) return;
    const source = sourceOf(event.target);
    if (source) take(source);
    else hide();
  }
  /** The element whose title was taken counts as if it had it. */
  function nearest(target: EventTarget | null): HTMLElement | null {
    const source = sourceOf(target);
    const inside = target instanceof Node && over?.contains(target) === true;
    return inside && (!source || source.contains(over)) ? over : source;
  }
  useEventListener(document, 'pointerover', point, { passive: true });
  useEventListener(document, 'pointermove', ({ clientX: x, clientY: y }) => (last = { x, y }), { passive: true });
  useEventListener(document, 'focusin', (event) => {
    const source = sourceOf(event.target);
    if (source && (event.target as Element).matches(':focus-visible')) take(source, BEFORE_FOCUSED_MILLISECONDS);
  });
  useEventListener(document, 'focusout', (event) => over?.contains(event.target as Node) && hide());
  useEventListener(document, 'pointerdown', hide, { capture: true });
  useEventListener(document, 'keydown', ({ key }) => (key === 'F1' ? setTimeout(hide) : hide()), { capture: true });
  useEventListener(document, 'wheel', hide, { passive: true });
  onBeforeUnmount(hide);
  return { tip, id: TIP_ID };
}
