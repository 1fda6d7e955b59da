import { atEffect, withPlaceKey } from '@jinx/core/document';
import { Matrix4, Quaternion, Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import { Standing } from './standing';

/** What places hang on here: turned, twice as large, and somewhere else. */
const MATRIX = new Matrix4().compose(
  new Vector3(3, 1, -2),
  new Quaternion().setFromAxisAngle(new Vector3(1, 2, 0.5).normalize(), 1.1),
  new Vector3(2, 2, 2),
);
const near = (a: Vector3, b: Vector3) => expect(a.distanceTo(b)).toBeLessThan(1e-6);

describe('a place on the stage', () => {
  it('moved through the world is moved by just that, whatever it hangs on', () => {
    const place = atEffect([0.4, 1, 0.2]);
    const before = new Standing(MATRIX, place, 0);
    const delta = new Vector3(0.3, -0.2, 0.5);
    const after = new Standing(MATRIX, { ...place, offset: before.movedBy(delta) }, 0);
    near(after.origin, before.origin.add(delta));
  });

  it('moved along one of its axes changes one number', () => {
    const place = atEffect([0.4, 1, 0.2]);
    const standing = new Standing(MATRIX, place, 0);
    const [x, y, z] = standing.movedBy(standing.offsetAxis(1).multiplyScalar(0.25));
    expect(x).toBeCloseTo(0.4, 6);
    expect(y).toBeCloseTo(1.25, 6);
    expect(z).toBeCloseTo(0.2, 6);
  });

  it('turned by one of its three numbers turns about the axis that is shown for it', () => {
    const turn: [number, number, number] = [20, 50, -70];
    for (const axis of [0, 1, 2]) {
      const standing = new Standing(MATRIX, { ...atEffect(), turn }, 0);
      const more: [number, number, number] = [...turn];
      more[axis]! += 30;
      const after = new Standing(MATRIX, { ...atEffect(), turn: more }, 0);
      const round = new Quaternion().setFromAxisAngle(standing.turnAxis(axis), Math.PI / 6);
      for (const way of [
        [1, 0, 0],
        [0, 1, 0],
        [0, 0, 1],
      ] as const)
        near(after.innerWay(way), standing.innerWay(way).applyQuaternion(round));
    }
  });

  it('has points of its own that follow the pointer', () => {
    const standing = new Standing(MATRIX, { ...atEffect([0, 1, 0]), turn: [10, 20, 30] }, 0);
    const delta = new Vector3(0.1, 0.4, -0.3);
    const to = standing.pointMovedBy([0.5, 0.5, 0], delta);
    near(standing.inner(to), standing.inner([0.5, 0.5, 0]).add(delta));
  });

  it('with keys stands where they put it at that instant', () => {
    const keys = withPlaceKey(atEffect(), 0, { offset: [0, 0, 0], turn: [0, 0, 0] }, 'a');
    const place = withPlaceKey(keys, 1, { offset: [2, 0, 0], turn: [0, 90, 0] }, 'b');
    expect(new Standing(new Matrix4(), place, 0.5).origin.x).toBeCloseTo(1, 6);
    expect(new Standing(new Matrix4(), place, 3).hung.turn[1]).toBe(90);
  });
});
