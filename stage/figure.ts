import * as THREE from 'three';
import { BONES, type Frame } from '@jinx/core/simulation';
import { invertAffine, multiplyInto } from '@jinx/core/maths';
import type { StageFigure } from './protocol.ts';

/** The figure, drawn with the pose of the frame: the stage runs no animation of its own. */
export class FigureMesh {
  readonly mesh: THREE.SkinnedMesh;
  readonly #skeleton: THREE.Skeleton;
  /** What takes a skin matrix back to its bone's own place. */
  readonly #binds: Float64Array[];
  readonly #bone = new Float64Array(16);

  constructor({ mesh, texture, inverseBind }: StageFigure) {
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(mesh.positions, 3));
    geometry.setAttribute('normal', new THREE.BufferAttribute(mesh.normals, 3));
    geometry.setAttribute('uv', new THREE.BufferAttribute(mesh.uvs, 2));
    geometry.setAttribute('skinIndex', new THREE.BufferAttribute(mesh.joints, 4));
    geometry.setAttribute('skinWeight', new THREE.BufferAttribute(mesh.weights, 4));
    geometry.setIndex(new THREE.BufferAttribute(mesh.indices, 1));
    const map = texture && new THREE.DataTexture(texture.rgba, texture.width, texture.height);
    if (map) {
      map.colorSpace = THREE.SRGBColorSpace;
      map.magFilter = THREE.LinearFilter;
      map.minFilter = THREE.LinearMipmapLinearFilter;
      map.generateMipmaps = true;
      map.needsUpdate = true;
    }
    const material = new THREE.MeshLambertMaterial({ map });
    const count = inverseBind.length / 16;
    this.#skeleton = new THREE.Skeleton(Array.from({ length: count }, () => new THREE.Bone()));
    // The frame's matrices are taken as they are.
    this.#skeleton.update = () => undefined;
    this.mesh = new THREE.SkinnedMesh(geometry, material);
    this.mesh.bind(this.#skeleton, new THREE.Matrix4());
    this.mesh.frustumCulled = false;
    this.#binds = Array.from({ length: count }, (_, bone) => invertAffine(inverseBind, bone * 16));
  }

  /** Blends the frame's two poses linearly, entry by entry, as particles on skin are blended. */
  pose(frame: Frame, share: number): void {
    const matrices = this.#skeleton.boneMatrices!;
    const words = Math.min(matrices.length, frame.bones * 16);
    const { f32 } = frame;
    for (let i = 0; i < words; i++)
      matrices[i] = f32[BONES + i]! * (1 - share) + f32[BONES + frame.bones * 16 + i]! * share;
    if (this.#skeleton.boneTexture) this.#skeleton.boneTexture.needsUpdate = true;
  }

  /** The world matrix of a bone as it is drawn; valid until the next call. */
  boneMatrix(bone: number): Float64Array {
    multiplyInto(this.#bone, 0, this.#skeleton.boneMatrices!, bone * 16, this.#binds[bone]!, 0);
    return this.#bone;
  }

  dispose(): void {
    this.mesh.geometry.dispose();
    const material = this.mesh.material as THREE.MeshLambertMaterial;
    material.map?.dispose();
    material.dispose();
    this.#skeleton.dispose();
  }
}
