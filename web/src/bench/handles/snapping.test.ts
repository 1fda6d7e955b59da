import { atEffect, collectionOf, newEffect, newLayer, setNumber } from '@jinx/core/document';
import { Matrix4, PerspectiveCamera, Vector3 } from 'three';
import { expect, it } from 'vitest';
import { Picture } from './picture';
import { nearestSeen, snapPoints } from './snapping';
import { Standing } from './standing';

it('handles snap to middles and borders of other sources, as far as they are seen close by', () => {
  const effect = newEffect('Test', 1);
  const [own, ring] = [newLayer('Own', 1), newLayer('Ring', 2)];
  ring.source = { kind: 'ring', place: atEffect([0, 1, 0]) };
  setNumber(ring, 'source.radius', 0.5);
  effect.layers = collectionOf([
    ['own', own],
    ['ring', ring],
  ]);
  const points = snapPoints(effect, 'own', ({ place }) => new Standing(new Matrix4(), place, 0), new Map());
  const camera = new PerspectiveCamera(40, 1, 0.1, 100);
  camera.position.set(0, 1, 4);
  const picture = new Picture(camera, [0, 0], 400, 400);
  expect(nearestSeen(points, new Vector3(0.51, 1.01, 0), picture)!.toArray()).toEqual([0.5, 1, 0]);
  expect(nearestSeen(points, new Vector3(0.01, 1, 0), picture)!.toArray()).toEqual([0, 1, 0]);
  expect(nearestSeen(points, new Vector3(0.25, 1.3, 0), picture)).toBeNull();
});
