import { onBeforeUnmount, onMounted } from 'vue';
import { keyOf } from './keys';
import type { Commands } from './registry';

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));
const usesKey = (target: EventTarget | null, key: string) =>
  target instanceof HTMLElement &&
  (key === ' ' || key === 'Enter') &&
  (target.tagName === 'BUTTON' || target.tagName === 'A');

/** Gives commands by their keys; these rest while something is being typed, or a control that uses the key has the focus. */
export function useKeys(commands: Commands): void {
  function hear(event: KeyboardEvent): void {
    if (event.defaultPrevented) return;
    const key = keyOf(event);
    const command = key === null ? undefined : commands.byKey(key);
    if (!command || (isTyping(event.target) && !command.whileTyping)) return;
    if (usesKey(event.target, event.key) && !event.ctrlKey && !event.metaKey) return;
    event.preventDefault();
    command.run();
  }
  onMounted(() => window.addEventListener('keydown', hear));
  onBeforeUnmount(() => window.removeEventListener('keydown', hear));
}
