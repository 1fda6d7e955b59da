import * as THREE from 'three';
import { describe, expect, it } from 'vitest';
import { Tracker } from './tracker.ts';

/** Matrices that stand at x = their number; there are three of them. */
const matrixOf = (number: number, out: THREE.Matrix4): boolean => {
  if (number > 2) return false;
  out.makeTranslation(number, 0, 0);
  return true;
};

describe('what the page hears of matrices', () => {
  it('is nothing until it asks, then those it asked for, in its order', () => {
    const tracker = new Tracker();
    tracker.note(matrixOf, 0, 0);
    expect(tracker.news()).toBeNull();
    tracker.ask([2, 1]);
    tracker.note(matrixOf, 4, 5);
    const { matrices, followed } = tracker.news()!;
    expect([matrices[12], matrices[16 + 12]]).toEqual([2, 1]);
    expect(followed).toEqual([4, 5]);
  });

  it('is told once, and again only when something has moved or the camera has gone along', () => {
    const tracker = new Tracker();
    tracker.ask([1]);
    tracker.note(matrixOf, 0, 0);
    expect(tracker.news()).not.toBeNull();
    tracker.note(matrixOf, 0, 0);
    expect(tracker.news()).toBeNull();
    tracker.note(matrixOf, 0, 1);
    expect(tracker.news()!.followed).toEqual([0, 1]);
    tracker.note((_, out) => (out.makeTranslation(9, 0, 0), true), 0, 1);
    expect(tracker.news()!.matrices[12]).toBe(9);
  });

  it('is all zero for a matrix that the frame does not have, and a copy that later pictures leave alone', () => {
    const tracker = new Tracker();
    tracker.ask([0, 7]);
    tracker.note(matrixOf, 0, 0);
    const first = tracker.news()!.matrices;
    expect(first.subarray(16).every((x) => x === 0)).toBe(true);
    tracker.note((_, out) => (out.makeTranslation(3, 0, 0), true), 0, 0);
    tracker.news();
    expect(first[12]).toBe(0);
  });
});
