import * as THREE from 'three';
import { describe, expect, it } from 'vitest';
import { Scene } from '@jinx/core/simulation';
import { newEffect } from '@jinx/core/document';
import type { Playing, Triple } from '../api.ts';
import { Following, standing } from './follow.ts';

describe('an effect that goes where an object of the scene goes', () => {
  it('is turned as the object is, by the angles that effects are turned by', () => {
    const object = new THREE.Object3D();
    object.position.set(1, 2, 3);
    object.rotation.set(0.4, -0.9, 1.3);
    const parent = new THREE.Object3D();
    parent.rotation.set(0.2, 0.5, 0);
    parent.add(object);
    const { at, turn } = standing(object);
    const effect = newEffect('Lamp', 1);
    const scene = new Scene(effect.stage, new Map());
    const place = { kind: 'world', offset: [...at], turn: [...turn], keys: { order: [], byId: {} } } as const;
    const matrix = new Float64Array(16);
    scene.placeInto(matrix, structuredClone(place) as never, 0, null);
    object.matrixWorld.elements.forEach((x, n) => expect(matrix[n]).toBeCloseTo(x, 6));
  });

  it('is told of its place when that has changed, and not otherwise', () => {
    const told: Triple[] = [];
    const playing = { place: (at: Triple) => told.push(at) } as unknown as Playing;
    const [following, object] = [new Following(), new THREE.Object3D()];
    following.set(playing, object);
    following.update();
    object.position.x = 2;
    following.update();
    following.update();
    following.set(playing, null);
    object.position.x = 3;
    following.update();
    expect(told).toEqual([
      [0, 0, 0],
      [2, 0, 0],
    ]);
  });
});
