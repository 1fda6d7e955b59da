import * as THREE from 'three';
import type { Frame } from '@jinx/core/simulation';
import { FigureMesh } from './figure.ts';
import type { CommonUniforms } from './looks/light.ts';
import { drawnMatrixInto } from './matrices.ts';
import type { FigureMode, StageFigure } from './protocol.ts';

/** Where a figure has its feet: x and z, in metres. */
export type Feet = readonly [number, number];

/** The figures and props of a scene. */
export class Figures {
  readonly #solids: THREE.Object3D;
  readonly #common: CommonUniforms;
  #all: FigureMesh[] = [];
  #hasFog = false;
  #hasView = false;
  #mode: FigureMode = 'drawn';
  #hidden: ReadonlySet<number> = new Set();
  readonly #matrix = new THREE.Matrix4();

  constructor(solids: THREE.Object3D, common: CommonUniforms) {
    [this.#solids, this.#common] = [solids, common];
  }

  get all(): readonly FigureMesh[] {
    return this.#all;
  }

  /** Figure `n` of the instance whose matrices begin at `firstBone`. */
  of(n: number, firstBone: number): FigureMesh | undefined {
    const first = this.#all.findIndex(({ boneStart }) => boneStart === firstBone);
    return first < 0 ? undefined : this.#all[first + n];
  }

  /** Other figures stand there; `warm` prepares what they are drawn with, while those that go still have their programs. */
  set(figures: readonly StageFigure[], warm: () => void): void {
    const before = this.#all;
    this.#all = figures.map((figure) => new FigureMesh(figure, this.#common));
    for (const figure of this.#all) {
      figure.setFog(this.#hasFog);
      figure.setView(this.#hasView);
      this.#solids.add(figure.mesh);
    }
    this.setMode(this.#mode);
    warm();
    for (const figure of before) {
      this.#solids.remove(figure.mesh);
      figure.dispose();
    }
  }

  /** Those of these numbers are not drawn, and cast no shadow. What hangs on them goes on. */
  hide(numbers: readonly number[]): void {
    this.#hidden = new Set(numbers);
  }

  setMode(mode: FigureMode): void {
    this.#mode = mode;
    for (const { mesh } of this.#all) (mesh.material as THREE.Material).colorWrite = mode === 'drawn';
  }

  setFog(hasFog: boolean): void {
    this.#hasFog = hasFog;
    for (const figure of this.#all) figure.setFog(hasFog);
  }

  setView(hasView: boolean): void {
    this.#hasView = hasView;
    for (const figure of this.#all) figure.setView(hasView);
  }

  /** Poses all as a frame says, at a share of the step. Returns where each has its feet, hidden or not. */
  pose(frame: Frame | null, share: number, isReplaced: (figure: FigureMesh) => boolean): Feet[] {
    const isPosed = frame !== null && frame.bones > 0;
    for (const [n, figure] of this.#all.entries()) {
      if (isPosed) figure.pose(frame, share);
      figure.mesh.visible = isPosed && this.#mode !== 'none' && !this.#hidden.has(n) && !isReplaced(figure);
    }
    return isPosed ? this.#all.map((figure) => this.#feetOf(figure, frame, share)) : [];
  }

  #feetOf(figure: FigureMesh, frame: Frame, share: number): Feet {
    drawnMatrixInto(this.#matrix, figure.feet, frame, share, this.#all);
    return [this.#matrix.elements[12]!, this.#matrix.elements[14]!];
  }

  /** Those of all feet that have a shadow on the ground. */
  castShadows(feet: readonly Feet[]): Feet[] {
    return this.#mode === 'drawn' ? feet.filter((_, n) => !this.#hidden.has(n)) : [];
  }
}
