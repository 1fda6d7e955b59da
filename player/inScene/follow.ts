import * as THREE from 'three';
import type { Playing, Triple } from '../api.ts';

const DEGREES = 180 / Math.PI;
/** Metres and degrees below which nothing is said: what stands is not put anew for every picture. */
const LEAST = 1e-5;

/** Where an object stands in the world, and how it is turned: degrees round X, then Y, then Z. */
export function standing(object: THREE.Object3D): { at: Triple; turn: Triple } {
  object.updateWorldMatrix(true, false);
  const [at, turn] = [new THREE.Vector3(), new THREE.Quaternion()];
  object.matrixWorld.decompose(at, turn, new THREE.Vector3());
  // Round X first: three.js names that by the order in which matrices are multiplied.
  const { x, y, z } = new THREE.Euler().setFromQuaternion(turn, 'ZYX');
  return { at: [at.x, at.y, at.z], turn: [x * DEGREES, y * DEGREES, z * DEGREES] };
}

const isSame = (a: Triple, b: Triple): boolean => a.every((x, axis) => Math.abs(x - b[axis]!) < LEAST);

/** Puts effects where objects of the scene are. */
export class Following {
  readonly #followed = new Map<Playing, { object: THREE.Object3D; at: Triple; turn: Triple }>();

  /** @param object null ends it. */
  set(playing: Playing, object: THREE.Object3D | null): void {
    if (!object) return void this.#followed.delete(playing);
    const place = standing(object);
    this.#followed.set(playing, { object, ...place });
    playing.place(place.at, place.turn);
  }

  /** Tells of what has moved since it was told. */
  update(): void {
    for (const [playing, known] of this.#followed) {
      const { at, turn } = standing(known.object);
      if (isSame(at, known.at) && isSame(turn, known.turn)) continue;
      Object.assign(known, { at, turn });
      playing.place(at, turn);
    }
  }
}
