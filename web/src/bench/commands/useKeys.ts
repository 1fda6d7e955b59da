import { onBeforeUnmount, onMounted } from 'vue';
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
    if (event.defaultPrevented || event.altKey) return;
    const isCommand = event.ctrlKey || event.metaKey;
    const letter = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    const command = commands.byKey(
      `${isCommand ? 'ctrl+' : ''}${isCommand && event.shiftKey ? 'shift+' : ''}${letter}`,
    );
    if (!command || (isTyping(event.target) && !command.whileTyping)) return;
    if (!isCommand && usesKey(event.target, event.key)) return;
    event.preventDefault();
    command.run();
  }
  onMounted(() => window.addEventListener('keydown', hear));
  onBeforeUnmount(() => window.removeEventListener('keydown', hear));
}
