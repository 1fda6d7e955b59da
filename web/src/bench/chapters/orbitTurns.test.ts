import { collectionOf, newForce } from '@jinx/core/document';
import { expect, it } from 'vitest';
import { alongWay, wayOf } from '../values/axes';
import { setTurnsASecond, turnsASecond } from './orbitTurns';

const NONE = { measures: collectionOf<never>([]) };

it('an orbit is told and set in turns a second, at its distance and within what speeds may be', () => {
  const orbit = newForce('orbit');
  if (orbit.kind !== 'orbit') throw new Error('no orbit');
  orbit.settings.distance.base = { kind: 'fixed', value: 0.5 };
  setTurnsASecond(orbit, 2, NONE);
  expect(orbit.settings).toMatchObject({ speed: { base: { kind: 'fixed', value: 6.28319 } } });
  expect(turnsASecond(orbit, NONE)).toBe(2);
  setTurnsASecond(orbit, 1000, NONE);
  expect(orbit.settings).toMatchObject({ speed: { base: { value: 200 } } });
  orbit.settings.distance.base = { kind: 'spread', low: 0.5, high: 1 };
  expect(turnsASecond(orbit, NONE)).toBeNull();
  expect(turnsASecond(newForce('vortex'), NONE)).toBeNull();
});

it('a direction is told by a word, and taken from one as long as it was', () => {
  expect(wayOf([0, 0, 3])).toBe('forward');
  expect(wayOf([0, -0.2, 0])).toBe('down');
  expect(wayOf([0, 1, 1])).toBeNull();
  expect(wayOf([0, 0, 0])).toBeNull();
  expect(alongWay('left', [0, 3, 4])).toEqual([5, 0, 0]);
  expect(alongWay('back', [0, 0, 0])).toEqual([0, 0, -1]);
});
