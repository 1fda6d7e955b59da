import { computed, ref } from 'vue';
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

describe('keys that were chosen', () => {
  const wished = () => {
    const wishes = {
      keys: ref<Record<string, readonly string[]>>({}),
      hasLetters: ref(true),
      areChanged: computed(() => false),
    };
    const commands = new Commands(wishes);
    commands.register([command('undo', 'ctrl+z'), command('dim', 'd'), command('play', ' ')]);
    return { wishes, commands };
  };

  it('stand in place of those that are listed', () => {
    const { commands } = wished();
    expect(commands.setKey('dim', 'y')).toBeUndefined();
    expect(commands.byKey('y')!.id).toBe('dim');
    expect(commands.byKey('d')).toBeUndefined();
  });

  it('are taken from the command that had them, which is told', () => {
    const { commands } = wished();
    expect(commands.setKey('dim', 'ctrl+z')!.id).toBe('undo');
    expect(commands.byKey('ctrl+z')!.id).toBe('dim');
    expect(commands.keysOf('undo')).toEqual([]);
  });

  it('may be none', () => {
    const { commands } = wished();
    commands.setKey('dim', null);
    expect(commands.keysOf('dim')).toEqual([]);
  });

  it('are no single letters where these are switched off', () => {
    const { wishes, commands } = wished();
    wishes.hasLetters.value = false;
    expect(commands.byKey('d')).toBeUndefined();
    expect(commands.byKey(' ')!.id).toBe('play');
    expect(commands.byKey('ctrl+z')!.id).toBe('undo');
  });
});

describe('the list of keys', () => {
  const listOf = (...all: Command[]) => {
    const commands = new Commands();
    commands.register(all);
    return (sought: string) => keysWith(commands, sought).map(({ keys, what }) => [keys.join(', '), what]);
  };
  const found = listOf(command('undo', 'ctrl+z', ['take back']), command('throw', null), command('play', ' '));

  it('is found by what a key does, by other words for it, and by the key, in any order', () => {
    expect(found('undo')).toEqual([['Ctrl Z', 'does undo']]);
    expect(found('back z')).toEqual([['Ctrl Z', 'does undo']]);
    expect(found('play')).toEqual([['Space', 'does play']]);
    expect(found('layer copy').map(([key]) => key)).toEqual(['Ctrl C on a row, Ctrl V']);
    expect(found('  ')).toHaveLength(2 + PLACE_KEYS.length);
    expect(found('no such thing')).toEqual([]);
  });

  it('has what has no key once that is sought, to be given one', () =>
    expect(found('throw')).toEqual([['', 'does throw']]));

  it('begins with what is learned first, whichever part of the bench was there first', () => {
    const given = listOf(command('undo', 'ctrl+z'), command('tray.keep', 't'), command('play.toggle', ' '));
    expect(given('does').map(([key]) => key)).toEqual(['Space', 'T', 'Ctrl Z']);
  });

  it('names no key of a place twice', () =>
    expect(new Set(PLACE_KEYS.map(([key]) => key)).size).toBe(PLACE_KEYS.length));
});
