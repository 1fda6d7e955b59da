import {
  apply,
  collectionOf,
  newEffect,
  newLayer,
  setNumber,
  type NumberSetting,
  type Transition,
} from '@jinx/core/document';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it } from 'vitest';
import { useEffectStore } from './effect';

let store: ReturnType<typeof useEffectStore>;
beforeEach(() => {
  setActivePinia(createPinia());
  store = useEffectStore();
  const document = newEffect('Test', 1);
  const standing = newLayer('Lamp', 4);
  setNumber(standing, 'births.standing', 1);
  document.layers = collectionOf([
    ['lamp', standing],
    ['motes', newLayer('Motes', 5)],
  ]);
  store.open({
    id: 'x',
    projectId: 'p',
    livingBudget: 1000,
    revision: 1,
    head: 'h',
    document,
    siblingOf: null,
    siblings: [],
    following: { at: 1, waiting: 0, failed: [] },
  });
});
const size = () => (store.chosen!.settings['life.size'].base as { value: number }).value;
const resize = (value: number, gesture: string | null = null) =>
  store.changeLayer(
    'set size',
    (layer) => ((layer.settings['life.size'] as NumberSetting).base = { kind: 'fixed', value }),
    gesture,
  );

describe('the effect on the bench', () => {
  it('opens on its first layer that streams', () => expect(store.chosenId).toBe('motes'));

  it('is changed, undone and done again, step by step', () => {
    const before = size();
    resize(0.2);
    resize(0.3);
    store.undo();
    expect(size()).toBe(0.2);
    store.undo();
    expect(size()).toBe(before);
    expect(store.undoLabel).toBe('');
    store.redo();
    store.redo();
    expect(size()).toBe(0.3);
  });

  it('takes a whole drag as one step', () => {
    const before = size();
    for (let value = 0.1; value < 0.5; value += 0.01) resize(value, 'drag size');
    store.endGesture();
    for (let value = 0.5; value < 0.9; value += 0.01) resize(value, 'drag size');
    store.undo();
    expect(size()).toBeCloseTo(0.49, 6);
    store.undo();
    expect(size()).toBe(before);
  });

  it('keeps no step for a change that changes nothing', () => {
    resize(size());
    expect(store.past).toHaveLength(0);
  });

  it('forgets what was undone once something else is changed', () => {
    resize(0.2);
    store.undo();
    resize(0.4);
    expect(store.redoLabel).toBe('');
  });

  it('chooses another layer when the chosen one is gone', () => {
    store.change('delete', (draft) => (draft.layers = collectionOf([['lamp', draft.layers.byId['lamp']!]])));
    expect(store.chosenId).toBe('lamp');
    store.undo();
    expect(store.effect!.layers.order).toEqual(['lamp', 'motes']);
  });

  it('never changes a document in place', () => {
    const before = store.effect;
    const text = JSON.stringify(before);
    resize(0.7);
    expect(store.effect).not.toBe(before);
    expect(JSON.stringify(before)).toBe(text);
  });

  it('changes all chosen layers in one step of undo, but for those that are locked', () => {
    const glow = (id: string) => store.effect!.layers.byId[id]!.settings['life.intensity'].base;
    const set = (value: number) =>
      store.changeLayers('set glow', (layer) => (layer.settings['life.intensity'].base = { kind: 'fixed', value }));
    store.choose(['motes', 'lamp']);
    const before = [glow('motes'), glow('lamp')];
    set(3);
    expect([glow('motes'), glow('lamp')]).toEqual([
      { kind: 'fixed', value: 3 },
      { kind: 'fixed', value: 3 },
    ]);
    store.undo();
    expect([glow('motes'), glow('lamp')]).toEqual(before);
    store.changeLayer('lock', (layer) => (layer.locked = true), null, 'lamp');
    set(4);
    expect([glow('motes'), glow('lamp')]).toEqual([{ kind: 'fixed', value: 4 }, before[1]]);
    expect(store.told).toBeNull();
  });

  it('refuses, in a sentence, what would change a locked layer or take it away; it may be hidden and unlocked', () => {
    store.changeLayer('lock', (layer) => (layer.locked = true));
    const locked = store.effect;
    resize(0.9);
    expect(store.effect).toBe(locked);
    expect(store.told!.sentence).toContain('Motes is locked');
    store.change('delete', (draft) => (draft.layers = collectionOf([['lamp', draft.layers.byId['lamp']!]])));
    expect(store.effect).toBe(locked);
    store.changeLayer('hide', (layer) => (layer.hidden = true));
    store.changeLayer('unlock', (layer) => (layer.locked = false));
    resize(0.9);
    expect(size()).toBe(0.9);
  });

  it('tells of each edit once: what it was and is, what changed, and of which drag', () => {
    const told: Transition[] = [];
    const unheard = store.onTransition((transition) => told.push(transition));
    const first = store.effect!;
    resize(0.2, 'drag size');
    resize(0.3, 'drag size');
    resize(0.3, 'drag size');
    store.undo();
    store.takeIn({ ...first, seed: 9 });
    unheard();
    resize(0.7);
    expect(told.map(({ label, gesture }) => [label, gesture])).toEqual([
      ['set size', 'drag size'],
      ['set size', 'drag size'],
      ['undo: set size', null],
      ['', null],
    ]);
    expect(told[0]!.before).toBe(first);
    told.forEach(({ before, after, changes }, n) => {
      expect(apply(before, changes)).toEqual(after);
      expect(changes.length).toBeGreaterThan(0);
      if (n > 0) expect(before).toBe(told[n - 1]!.after);
    });
  });

  it('keeps of the chosen layers those that are left', () => {
    store.choose(['motes', 'lamp']);
    store.change('delete', (draft) => (draft.layers = collectionOf([['lamp', draft.layers.byId['lamp']!]])));
    expect(store.chosenIds).toEqual(['lamp']);
  });
});
