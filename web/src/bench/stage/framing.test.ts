import { describe, expect, it } from 'vitest';
import { PerspectiveCamera, Vector3 } from 'three';
import { FIRST_VIEW } from '@jinx/player/scene';
import { viewOf } from './framing';

const cornersOf = (low: number[], high: number[]) =>
  [0, 1, 2, 3, 4, 5, 6, 7].map((n) => new Vector3(...[0, 1, 2].map((axis) => ((n >> axis) & 1 ? high : low)[axis]!)));

describe('framing a box', () => {
  const aspect = 16 / 9;
  function seen(low: [number, number, number], high: [number, number, number]): Vector3[] {
    const view = viewOf({ low, high }, { ...FIRST_VIEW, follows: false }, aspect, [0, 0]);
    const camera = new PerspectiveCamera(view.fieldOfView, aspect, 0.02, 200);
    camera.position.set(...view.position);
    camera.lookAt(...view.target);
    camera.updateMatrixWorld();
    return cornersOf(low, high).map((corner) => corner.project(camera));
  }
  it.each([
    [
      [-0.1, 1.2, -0.1],
      [0.1, 1.5, 0.1],
    ],
    [
      [3, 0, 3],
      [5, 4, 5],
    ],
    [
      [-8, 0, -1],
      [8, 0.1, 1],
    ],
  ] as [[number, number, number], [number, number, number]][])('from %j to %j it fills the picture', (low, high) => {
    const corners = seen(low, high);
    const reach = Math.max(...corners.flatMap(({ x, y }) => [Math.abs(x), Math.abs(y)]));
    expect(reach).toBeLessThan(1);
    expect(reach).toBeGreaterThan(0.4);
  });
  it('keeps the direction of the view, and goes with what it follows', () => {
    const box = { low: [4, 0, 2] as const, high: [5, 1, 3] as const };
    const view = viewOf(box, FIRST_VIEW, aspect, [4, 2]);
    expect(view.target).toEqual([0.5, 0.5, 0.5]);
    const way = new Vector3(...view.position).sub(new Vector3(...view.target)).normalize();
    const before = new Vector3(...FIRST_VIEW.position).sub(new Vector3(...FIRST_VIEW.target)).normalize();
    expect(way.distanceTo(before)).toBeLessThan(1e-9);
  });
});
