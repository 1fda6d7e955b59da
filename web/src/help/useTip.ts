import { useEventListener } from '@vueuse/core';
import { onBeforeUnmount, shallowRef, type Ref } from 'vue';

/** Milliseconds that something is pointed at before its tip comes; and within which the next comes at once. */
const BEFORE_MILLISECONDS = 450;
const AGAIN_MILLISECONDS = 300;

/** The tip that is shown: of which element, and what its `title` says. */
export interface Tip {
  readonly element: HTMLElement;
  readonly title: string;
}
const SOURCES = '[title], [data-address]';
const TIP_ID = 'jinx-tip';

/**
 * One tip for the whole page, of whatever has a `title` or the address of a setting, for the pointer and for keys. While it is
 * due or shown, the element has no `title`, since the browser would show it too; it is described by the tip instead.
 */
export function useTip(): { tip: Readonly<Ref<Tip | null>>; keep: () => void; hide: () => void; id: string } {
  const tip = shallowRef<Tip | null>(null);
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
    giveBack();
  }
  function take(element: HTMLElement): void {
    hide();
    over = element;
    taken = element.getAttribute('title') ?? '';
    element.removeAttribute('title');
    const wait = performance.now() - hiddenAt < AGAIN_MILLISECONDS ? 0 : BEFORE_MILLISECONDS;
    timer = window.setTimeout(() => {
      if (!element.isConnected) return giveBack();
      if (!element.hasAttribute('aria-describedby')) element.setAttribute('aria-describedby', TIP_ID);
      tip.value = { element, title: taken };
    }, wait);
  }
  const sourceOf = (target: EventTarget | null) =>
    target instanceof Element ? target.closest<HTMLElement>(SOURCES) : null;
  const isTip = (target: EventTarget | null) => target instanceof Element && target.closest(`#${TIP_ID}`) !== null;

  function point(event: Event): void {
    // What is pointed at inside keeps what it lies in; the tip itself may be pointed at, to be read or pressed.
    if (isTip(event.target) || (over && over === nearest(event.target))) return window.clearTimeout(leaving);
    const source = sourceOf(event.target);
    if (source) take(source);
    else leaveSoon();
  }
  /** The element whose title was taken counts as if it had it. */
  function nearest(target: EventTarget | null): HTMLElement | null {
    const source = sourceOf(target);
    const inside = target instanceof Node && over?.contains(target) === true;
    return inside && (!source || source.contains(over)) ? over : source;
  }
  let leaving = 0;
  /** Time to come from the element to its tip. */
  function leaveSoon(): void {
    window.clearTimeout(leaving);
    leaving = window.setTimeout(hide, 120);
  }
  useEventListener(document, 'pointerover', point, { passive: true });
  useEventListener(document, 'focusin', (event) => {
    const source = sourceOf(event.target);
    if (source && (event.target as Element).matches(':focus-visible')) take(source);
  });
  useEventListener(document, 'focusout', (event) => over?.contains(event.target as Node) && hide());
  useEventListener(document, 'pointerdown', (event) => !isTip(event.target) && hide(), { capture: true });
  useEventListener(document, 'keydown', ({ key }) => key !== 'F1' && hide(), { capture: true });
  useEventListener(document, 'wheel', hide, { passive: true });
  onBeforeUnmount(hide);
  return { tip, keep: () => window.clearTimeout(leaving), hide, id: TIP_ID };
}
