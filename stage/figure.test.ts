import * as THREE from 'three';
import { describe, expect, it } from 'vitest';
import { skinnedVertex } from '@jinx/core/geometry';
import { Frame, World } from '@jinx/core/simulation';
import { effectOf, TUBE } from '../core/testing/effects.ts';
import { bendingTube } from '../core/testing/rigs.ts';
import { FigureMesh } from './figure.ts';
import { Guides } from './guides.ts';

const rig = bendingTube();

/** A frame of the tube in mid-bend, walking round its circle. */
function frameAt(step: number): Frame {
  const effect = effectOf(() => undefined);
  effect.stage.figure = { asset: TUBE, clip: 'sway', path: { kind: 'circle', radius: 3 } };
  const world = new World(effect, new Map([[TUBE, rig]]));
  world.advance(step);
  const frame = new Frame(new ArrayBuffer(Frame.bytes(world.mostRecords)));
  world.writeFrame(frame);
  return frame;
}
const figure = () => new FigureMesh({ mesh: rig.mesh, texture: rig.texture, inverseBind: rig.inverseBind });

describe('the drawn figure', () => {
  it('is drawn where core says its skin is, on steps and between them', () => {
    const frame = frameAt(37);
    const drawn = figure();
    drawn.mesh.updateMatrixWorld(true);
    const place = new THREE.Vector3();
    for (const share of [0, 0.3, 1]) {
      drawn.pose(frame, share);
      const pose = frame.skin(share);
      for (let vertex = 0; vertex < rig.mesh.positions.length / 3; vertex += 7) {
        place.fromArray(rig.mesh.positions, vertex * 3);
        // What three's vertex shader computes, in JavaScript, from the same bone matrices.
        const at = new THREE.Vector3();
        for (let k = 0; k < 4; k++) {
          const matrix = new THREE.Matrix4().fromArray(
            drawn.mesh.skeleton.boneMatrices!,
            rig.mesh.joints[vertex * 4 + k]! * 16,
          );
          at.addScaledVector(place.clone().applyMatrix4(matrix), rig.mesh.weights[vertex * 4 + k]!);
        }
        skinnedVertex(rig, pose, vertex).forEach((x, axis) => expect(at.getComponent(axis)).toBeCloseTo(x, 5));
      }
    }
  });

  it('moves between the poses of its step, and not beyond them', () => {
    const frame = frameAt(37);
    const drawn = figure();
    const bone = rig.bones.findIndex(({ name }) => name === 'high');
    const placeAt = (share: number) => (drawn.pose(frame, share), [...drawn.boneMatrix(bone).slice(12, 15)]);
    const [start, middle, end] = [placeAt(0), placeAt(0.5), placeAt(1)];
    expect(Math.hypot(...start.map((x, i) => x - end[i]!))).toBeGreaterThan(1e-4);
    middle.forEach((x, i) => expect(x).toBeCloseTo((start[i]! + end[i]!) / 2, 5));
  });

  it('carries guides on the bone they hang on, and leaves others in the world', () => {
    const drawn = figure();
    const bone = rig.bones.findIndex(({ name }) => name === 'high');
    const guides = new Guides();
    const points = Float32Array.of(0, 0, 0, 0, 0.1, 0);
    guides.set([
      { bone, points, tone: 'source' },
      { bone: -1, points, tone: 'force' },
    ]);
    drawn.pose(frameAt(20), 1);
    guides.follow(drawn);
    const [hung, standing] = guides.group.children as THREE.LineSegments[];
    const at = drawn.boneMatrix(bone);
    expect(hung!.matrix.elements.slice(12, 15)).toEqual([at[12], at[13], at[14]]);
    expect(standing!.matrix.equals(new THREE.Matrix4())).toBe(true);
    guides.set([]);
    expect(guides.group.children).toHaveLength(0);
  });
});
