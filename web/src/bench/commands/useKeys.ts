import { onBeforeUnmount, onMounted } from 'vue';

/** Keys of the bench; they rest while something is being typed, or a control that uses the key has the focus. */
export function useKeys(keys: Readonly<Record<string, () => void>>): void {
  const isTyping = (target: EventTarget | null) =>
    target instanceof HTMLElement &&
    (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));
  const usesKey = (target: EventTarget | null, key: string) =>
    target instanceof HTMLElement &&
    (key === ' ' || key === 'Enter') &&
    (target.tagName === 'BUTTON' || target.tagName === 'A');
  function hear(event: KeyboardEvent): void {
    if (event.defaultPrevented || event.altKey) return;
    const isCommand = event.ctrlKey || event.metaKey;
    if (isTyping(event.target) || (!isCommand && usesKey(event.target, event.key))) return;
    const name = `${isCommand ? 'ctrl+' : ''}${isCommand && event.shiftKey ? 'shift+' : ''}${event.key.length === 1 ? event.key.toLowerCase() : event.key}`;
    const act = keys[name];
    if (!act) return;
    event.preventDefault();
    act();
  }
  onMounted(() => window.addEventListener('keydown', hear));
  onBeforeUnmount(() => window.removeEventListener('keydown', hear));
}
