import * as THREE from 'three';
import type { Guide } from './protocol.ts';

const TONES = {
  source: [0.75, 0.8, 0.3, 0.8],
  force: [0.85, 0.85, 0.85, 0.5],
  surface: [0.3, 0.33, 0.36, 0.5],
  faint: [0.3, 0.3, 0.3, 0.22],
} as const;

/** Lines that explain sources and forces; they follow what they hang on. */
export class Guides {
  readonly group = new THREE.Group();
  #guides: { guide: Guide; lines: THREE.LineSegments }[] = [];

  set(guides: readonly Guide[]): void {
    for (const { lines } of this.#guides) {
      lines.geometry.dispose();
      (lines.material as THREE.Material).dispose();
    }
    this.group.clear();
    this.#guides = guides.map((guide) => {
      const geometry = new THREE.BufferGeometry();
      geometry.setAttribute('position', new THREE.BufferAttribute(guide.points, 3));
      const [r, g, b, opacity] = TONES[guide.tone];
      const material = new THREE.LineBasicMaterial({
        color: new THREE.Color(r, g, b),
        transparent: true,
        opacity,
        depthTest: false,
        depthWrite: false,
      });
      const lines = new THREE.LineSegments(geometry, material);
      lines.frustumCulled = false;
      lines.renderOrder = 1000;
      lines.matrixAutoUpdate = false;
      this.group.add(lines);
      return { guide, lines };
    });
  }

  /** `matrixOf` writes where a frame's matrix stands now, or says that there is none. */
  follow(matrixOf: (number: number, out: THREE.Matrix4) => boolean): void {
    for (const { guide, lines } of this.#guides) {
      if (guide.matrix < 0 || !matrixOf(guide.matrix, lines.matrix)) lines.matrix.identity();
      lines.matrixWorldNeedsUpdate = true;
    }
  }
}
