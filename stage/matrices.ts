import * as THREE from 'three';
import type { Frame } from '@jinx/core/simulation';
import type { FigureMesh } from './figure.ts';

const bindMatrix = new THREE.Matrix4();

/**
 * Writes a frame's matrix as it is drawn at `share` of the step, both ends blended linearly: of a bone, of a thing's
 * feet, or of the effect's own frame. Returns false where the frame has no such matrix.
 */
export function drawnMatrixInto(
  out: THREE.Matrix4,
  number: number,
  frame: Frame,
  share: number,
  figures: readonly FigureMesh[],
): boolean {
  if (number < 0 || number >= frame.bones) return false;
  const [from, to] = [frame.boneAt(number, false), frame.boneAt(number, true)];
  for (let i = 0; i < 16; i++) out.elements[i] = frame.f32[from + i]! * (1 - share) + frame.f32[to + i]! * share;
  // A bone's matrix takes the rest mesh to the pose; its bind takes the bone's own place there first.
  for (const figure of figures) {
    const bind = figure.bind(number);
    if (bind) out.multiply(bindMatrix.fromArray(bind));
  }
  return true;
}
