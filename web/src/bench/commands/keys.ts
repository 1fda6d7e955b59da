import { useStorage } from '@vueuse/core';
import { computed, type ComputedRef, type Ref } from 'vue';
import type { Command } from './command';

/** Keys that were given to commands in place of their own, and whether single letters act: wishes of this browser. */
export interface KeyWishes {
  readonly keys: Ref<Readonly<Record<string, readonly string[]>>>;
  readonly hasLetters: Ref<boolean>;
  /** Whether anything differs from how it began. */
  readonly areChanged: ComputedRef<boolean>;
}

export function useKeyWishes(): KeyWishes {
  const keys = useStorage<Record<string, readonly string[]>>('jinx keys', {});
  const hasLetters = useStorage('jinx single letters', true);
  const areChanged = computed(() => Object.keys(keys.value).length > 0 || !hasLetters.value);
  return { keys, hasLetters, areChanged };
}

/** Whether a key is one character by itself. Space and named keys such as Enter are not. */
export const isLetter = (key: string): boolean => key.length === 1 && key !== ' ';

/** The keys a command has as it is listed. */
export const ownKeys = ({ key }: Pick<Command, 'key'>): readonly string[] =>
  key === null ? [] : typeof key === 'string' ? [key] : key;

type Pressed = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>;
const MODIFIERS = new Set(['Control', 'Shift', 'Alt', 'Meta', 'AltGraph', 'CapsLock', 'Dead', 'Process']);
/** A key as commands name it, as in "ctrl+shift+z"; null for one that only modifies others. */
export function keyOf({ key, ctrlKey, metaKey, altKey, shiftKey }: Pressed): string | null {
  if (MODIFIERS.has(key)) return null;
  const isCommand = ctrlKey || metaKey;
  const name = key.length === 1 ? key.toLowerCase() : key;
  // Shift is part of a sign such as "?", and is named with letters and with other modifiers.
  const namesShift = shiftKey && (isCommand || altKey || name.length > 1 || /[a-z]/.test(name));
  return `${isCommand ? 'ctrl+' : ''}${altKey ? 'alt+' : ''}${namesShift ? 'shift+' : ''}${name}`;
}
