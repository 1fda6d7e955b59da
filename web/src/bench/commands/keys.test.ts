import { describe, expect, it } from 'vitest';
import { isLetter, keyOf } from './keys';

const pressed = (key: string, ...held: ('ctrlKey' | 'altKey' | 'shiftKey' | 'metaKey')[]) =>
  keyOf({
    key,
    ctrlKey: held.includes('ctrlKey'),
    altKey: held.includes('altKey'),
    shiftKey: held.includes('shiftKey'),
    metaKey: held.includes('metaKey'),
  });

describe('a pressed key', () => {
  it('is named with what is held', () => {
    expect(pressed('k', 'ctrlKey')).toBe('ctrl+k');
    expect(pressed('k', 'metaKey')).toBe('ctrl+k');
    expect(pressed('Z', 'ctrlKey', 'shiftKey')).toBe('ctrl+shift+z');
    expect(pressed('1', 'altKey')).toBe('alt+1');
    expect(pressed('M', 'shiftKey')).toBe('shift+m');
    expect(pressed('Enter', 'shiftKey')).toBe('shift+Enter');
  });

  it('has no Shift where the sign needs it', () => expect(pressed('?', 'shiftKey')).toBe('?'));

  it('is none while only something is held', () => {
    for (const key of ['Control', 'Shift', 'Alt', 'Meta']) expect(pressed(key)).toBeNull();
  });

  it('is a letter only by itself', () => {
    expect(['d', '?', '1', ','].every(isLetter)).toBe(true);
    expect([' ', 'Enter', 'ctrl+d', 'shift+m'].some(isLetter)).toBe(false);
  });
});
