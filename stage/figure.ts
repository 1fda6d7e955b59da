import * as THREE from 'three';
import type { Frame } from '@jinx/core/simulation';
import { invertAffine } from '@jinx/core/maths';
import { figureMaterial } from './figureMaterial.ts';
import { setDefine, type CommonUniforms } from './looks/light.ts';
import type { StageFigure } from './protocol.ts';

/** A figure or prop, drawn with the pose of the frame: the stage runs no animation of its own. */
export class FigureMesh {
  readonly mesh: THREE.SkinnedMesh;
  readonly #skeleton: THREE.Skeleton;
  /** What takes a skin matrix back to its bone's own place. */
  readonly #binds: Float64Array[];
  /** The first of its matrices among those of a frame. */
  readonly boneStart: number;
  readonly #words: number;
  readonly picture: THREE.DataTexture;

  constructor({ mesh, texture, inverseBind, boneStart }: StageFigure, common: CommonUniforms) {
    this.boneStart = boneStart;
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(mesh.positions, 3));
    geometry.setAttribute('normal', new THREE.BufferAttribute(mesh.normals, 3));
    geometry.setAttribute('uv', new THREE.BufferAttribute(mesh.uvs, 2));
    geometry.setAttribute('skinIndex', new THREE.BufferAttribute(mesh.joints, 4));
    geometry.setAttribute('skinWeight', new THREE.BufferAttribute(mesh.weights, 4));
    geometry.setIndex(new THREE.BufferAttribute(mesh.indices, 1));
    this.picture = texture
      ? new THREE.DataTexture(texture.rgba, texture.width, texture.height)
      : new THREE.DataTexture(new Uint8Array([255, 255, 255, 255]), 1, 1);
    this.picture.colorSpace = THREE.SRGBColorSpace;
    this.picture.magFilter = THREE.LinearFilter;
    this.picture.minFilter = THREE.LinearMipmapLinearFilter;
    this.picture.generateMipmaps = true;
    this.picture.needsUpdate = true;
    const material = figureMaterial(common, this.picture);
    const count = inverseBind.length / 16;
    this.#words = count * 16;
    this.#skeleton = new THREE.Skeleton(Array.from({ length: count }, () => new THREE.Bone()));
    // The frame's matrices are taken as they are.
    this.#skeleton.update = () => undefined;
    this.mesh = new THREE.SkinnedMesh(geometry, material);
    this.mesh.bind(this.#skeleton, new THREE.Matrix4());
    this.mesh.frustumCulled = false;
    this.#binds = Array.from({ length: count }, (_, bone) => invertAffine(inverseBind, bone * 16));
  }

  /** Lets it be seen through fog, or no more. */
  setFog(isOn: boolean): void {
    setDefine(this.mesh.material as THREE.ShaderMaterial, 'HAS_FOG', isOn);
  }

  /** Lets it be seen without its colours, or with them again. */
  setView(isOn: boolean): void {
    setDefine(this.mesh.material as THREE.ShaderMaterial, 'HAS_VIEW', isOn);
  }

  /** Blends the frame's two poses linearly, entry by entry, as particles on skin are blended. */
  pose(frame: Frame, share: number): void {
    const matrices = this.#skeleton.boneMatrices!;
    const { f32 } = frame;
    const from = frame.boneAt(this.boneStart, false);
    const to = from + frame.bones * 16;
    for (let i = 0; i < this.#words; i++) matrices[i] = f32[from + i]! * (1 - share) + f32[to + i]! * share;
    if (this.#skeleton.boneTexture) this.#skeleton.boneTexture.needsUpdate = true;
  }

  /** Which matrix of a frame is that of its feet. */
  get feet(): number {
    return this.boneStart + this.#words / 16;
  }

  /** What takes the matrix `number` of a frame back to its bone's own place; null where it is none of its bones. */
  bind(number: number): Float64Array | null {
    return this.#binds[number - this.boneStart] ?? null;
  }

  dispose(): void {
    this.mesh.geometry.dispose();
    (this.mesh.material as THREE.Material).dispose();
    this.picture.dispose();
    this.#skeleton.dispose();
  }
}
