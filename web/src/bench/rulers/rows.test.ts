import { collectionOf, newEffect, newLayer, type Effect, newGroup } from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import { rowsOf } from './rows';

const effect = (): Effect => {
  const made = newEffect('Test', 1);
  const layer = (name: string, parent: string | null) => ({ ...newLayer(name, 1), parent });
  made.layers = collectionOf([
    ['a', layer('A', null)],
    ['b', layer('B', 'inner')],
    ['c', layer('C', 'outer')],
    ['d', layer('D', null)],
    ['e', layer('E', 'inner')],
  ]);
  const group = (parent: string | null) => newGroup('G', parent);
  made.groups = collectionOf([
    ['empty', group(null)],
    ['inner', group('outer')],
    ['outer', group(null)],
  ]);
  return made;
};
const read = (rows: ReturnType<typeof rowsOf>) => rows.map(({ id, depth }) => `${'.'.repeat(depth)}${id}`).join(' ');

describe('rows of the rulers', () => {
  it('stand front to back as they are drawn', () =>
    expect(read(rowsOf(effect(), 'drawn', new Set()))).toBe('a b c d e'));

  it('stand under their groups, each group where the foremost of its layers would', () =>
    expect(read(rowsOf(effect(), 'grouped', new Set()))).toBe('a outer .inner ..b ..e .c d empty'));

  it('show of a folded group its head alone', () => {
    expect(read(rowsOf(effect(), 'grouped', new Set(['inner'])))).toBe('a outer .inner .c d empty');
    expect(read(rowsOf(effect(), 'grouped', new Set(['outer'])))).toBe('a outer d empty');
  });
});
