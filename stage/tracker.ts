import * as THREE from 'three';
import type { Tracked } from './protocol.ts';

/** Keeps where matrices that the page asked for stand in the picture, and tells of it when that has changed. */
export class Tracker {
  #numbers: readonly number[] = [];
  #matrices = new Float32Array(0);
  #followed: [number, number] = [0, 0];
  #isNews = false;
  readonly #matrix = new THREE.Matrix4();

  ask(numbers: readonly number[]): void {
    this.#numbers = numbers;
    this.#matrices = new Float32Array(numbers.length * 16);
    this.#isNews = true;
  }

  /** Notes the picture being drawn: `matrixOf` writes a matrix, or says that there is none; the camera has gone `x`, `z` along. */
  note(matrixOf: (number: number, out: THREE.Matrix4) => boolean, x: number, z: number): void {
    this.#numbers.forEach((number, n) => {
      if (!matrixOf(number, this.#matrix)) this.#matrix.elements.fill(0);
      for (let i = 0; i < 16; i++) this.#set(n * 16 + i, this.#matrix.elements[i]!);
    });
    this.#isNews ||= this.#followed[0] !== x || this.#followed[1] !== z;
    this.#followed = [x, z];
  }

  #set(at: number, value: number): void {
    const rounded = Math.fround(value);
    this.#isNews ||= this.#matrices[at] !== rounded;
    this.#matrices[at] = rounded;
  }

  news(): Tracked | null {
    if (!this.#isNews || this.#numbers.length === 0) return null;
    this.#isNews = false;
    return { matrices: this.#matrices.slice(), followed: this.#followed };
  }
}
