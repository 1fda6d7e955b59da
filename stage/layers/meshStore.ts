import * as THREE from 'three';
import { longestSide } from '@jinx/core/geometry';
import type { StageMesh } from '../protocol.ts';

/** A mesh that particles are drawn as: its longest side is one metre. */
export interface KeptMesh {
  readonly mesh: StageMesh['mesh'];
  readonly geometry: THREE.BufferGeometry;
  readonly picture: THREE.Texture;
}

/** Meshes of particles, by the hash of their asset. */
export class MeshStore {
  readonly #kept = new Map<string, KeptMesh>();
  readonly #white = new THREE.DataTexture(new Uint8Array([255, 255, 255, 255]), 1, 1);

  constructor() {
    this.#white.needsUpdate = true;
  }

  set(meshes: readonly StageMesh[]): void {
    const wanted = new Set(meshes.map(({ hash }) => hash));
    for (const [hash, { geometry, picture }] of this.#kept) {
      if (wanted.has(hash)) continue;
      geometry.dispose();
      if (picture !== this.#white) picture.dispose();
      this.#kept.delete(hash);
    }
    for (const made of meshes) if (!this.#kept.has(made.hash)) this.#kept.set(made.hash, this.#keep(made));
  }

  dispose(): void {
    this.set([]);
    this.#white.dispose();
  }

  #keep({ mesh, texture }: StageMesh): KeptMesh {
    const { positions, normals, uvs, indices, colours, otherShape } = mesh;
    const geometry = new THREE.BufferGeometry();
    const scale = 1 / longestSide(positions);
    geometry.setAttribute('position', scaled(positions, scale));
    geometry.setAttribute('normal', new THREE.BufferAttribute(normals, 3));
    // Without another shape both are the same.
    const other = otherShape ?? { positions, normals };
    geometry.setAttribute('otherPosition', scaled(other.positions, scale));
    geometry.setAttribute('otherNormal', new THREE.BufferAttribute(other.normals, 3));
    geometry.setAttribute('uv', new THREE.BufferAttribute(uvs, 2));
    const painted = colours ?? new Float32Array(positions.length).fill(1);
    geometry.setAttribute('vertexColour', new THREE.BufferAttribute(painted, 3));
    geometry.setIndex(new THREE.BufferAttribute(indices, 1));
    return { mesh, geometry, picture: texture ? pictureOf(texture) : this.#white };
  }

  of(hash: string): KeptMesh | undefined {
    return this.#kept.get(hash);
  }
}

const scaled = (numbers: Float32Array, scale: number): THREE.BufferAttribute =>
  new THREE.BufferAttribute(
    numbers.map((x) => x * scale),
    3,
  );

function pictureOf({ rgba, width, height }: NonNullable<StageMesh['texture']>): THREE.Texture {
  const picture = new THREE.DataTexture(rgba, width, height);
  picture.colorSpace = THREE.SRGBColorSpace;
  picture.magFilter = THREE.LinearFilter;
  picture.minFilter = THREE.LinearMipmapLinearFilter;
  picture.wrapS = picture.wrapT = THREE.RepeatWrapping;
  picture.generateMipmaps = true;
  picture.needsUpdate = true;
  return picture;
}
