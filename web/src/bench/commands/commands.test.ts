import { describe, expect, it } from 'vitest';
import { KEY_WORDS, keysWith } from './keyWords';

describe('the list of keys', () => {
  it('is found by what a key does and by the key, in any order', () => {
    expect(keysWith('undo')).toEqual([['Ctrl Z', 'undo']]);
    expect(keysWith('layer copy').map(([key]) => key)).toEqual(['Ctrl C on a row, Ctrl V']);
    expect(keysWith('ctrl').length).toBeGreaterThan(3);
    expect(keysWith('  ')).toEqual(KEY_WORDS);
    expect(keysWith('no such thing')).toEqual([]);
  });

  it('names no key twice', () => expect(new Set(KEY_WORDS.map(([key]) => key)).size).toBe(KEY_WORDS.length));
});
