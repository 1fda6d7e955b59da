import { describe, expect, it } from 'vitest';
import { keysWith, PLACE_KEYS } from './placeKeys';
import { Commands, type Command } from './registry';

const given: string[] = [];
const command = (id: string, key: Command['key'], otherWords: string[] = []): Command => ({
  id,
  label: `does ${id}`,
  otherWords,
  key,
  run: () => given.push(id),
});

describe('commands', () => {
  it('are given by id and by any of their keys, as long as they are registered', () => {
    const commands = new Commands();
    const takeAway = commands.register([command('redo', ['ctrl+shift+z', 'ctrl+y']), command('throw', null)]);
    expect(commands.byKey('ctrl+y')!.id).toBe('redo');
    expect(commands.run('throw')).toBe(true);
    expect(given).toEqual(['throw']);
    takeAway();
    expect(commands.byKey('ctrl+y')).toBeUndefined();
    expect(commands.run('throw')).toBe(false);
  });

  it('have ids and keys of their own', () => {
    const commands = new Commands();
    commands.register([command('undo', 'ctrl+z')]);
    expect(() => commands.register([command('undo', null)])).toThrow(/"undo" already/);
    expect(() => commands.register([command('again', ['y', 'ctrl+z'])])).toThrow(
      /ctrl\+z of "again" is that of "undo"/,
    );
  });
});

describe('the list of keys', () => {
  const all = [command('undo', 'ctrl+z', ['take back']), command('throw', null), command('play', ' ')];

  it('is found by what a key does, by other words for it, and by the key, in any order', () => {
    expect(keysWith(all, 'undo')).toEqual([['Ctrl Z', 'does undo']]);
    expect(keysWith(all, 'back z')).toEqual([['Ctrl Z', 'does undo']]);
    expect(keysWith(all, 'play')).toEqual([['Space', 'does play']]);
    expect(keysWith(all, 'layer copy').map(([key]) => key)).toEqual(['Ctrl C on a row, Ctrl V']);
    expect(keysWith(all, '  ')).toHaveLength(2 + PLACE_KEYS.length);
    expect(keysWith(all, 'no such thing')).toEqual([]);
  });

  it('begins with what is learned first, whichever part of the bench was there first', () => {
    const given = [command('undo', 'ctrl+z'), command('tray.keep', 't'), command('play.toggle', ' ')];
    expect(keysWith(given, 'does').map(([key]) => key)).toEqual(['Space', 'T', 'Ctrl Z']);
  });

  it('names no key of a place twice', () =>
    expect(new Set(PLACE_KEYS.map(([key]) => key)).size).toBe(PLACE_KEYS.length));
});
