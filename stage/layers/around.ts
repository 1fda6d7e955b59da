import type * as THREE from 'three';
import type { FigureMesh } from '../figure.ts';
import type { CommonUniforms } from '../looks/light.ts';
import type { Pictures } from '../looks/pictures.ts';
import type { MeshStore } from './meshStore.ts';

/** What a layer's drawing asks of the stage. */
export interface Around {
  readonly common: CommonUniforms;
  readonly pictures: Pictures;
  readonly meshes: MeshStore;
  /** The picture as it is behind what bends it, and its size in pixels. */
  readonly behindIt: THREE.IUniform<THREE.Texture | null>;
  readonly pictureSize: THREE.IUniform<THREE.Vector2>;
  hasFog: boolean;
  /** Whether particles are drawn in the tones of a view. */
  hasView: boolean;
  /** Whether shining things mirror a picture rather than the sky. */
  hasMirrored: boolean;
  /** Whether it is known how far away what is solid is. */
  hasDepth: boolean;
  /** Whether it is drawn among what somebody else draws, by their tone curve and colour space. */
  readonly isGuest: boolean;
  /** Figure `n` of the instance whose matrices begin at `firstBone`. */
  figure(n: number, firstBone: number): FigureMesh | undefined;
  /**
   * Prepares a material's program for a mesh of that shape: which attributes that has is part of the program. Calls back once
   * it can be drawn with, at once where it already can.
   */
  warm(mesh: THREE.Mesh, shape: THREE.BufferGeometry, material: THREE.Material, ready: () => void): void;
}
