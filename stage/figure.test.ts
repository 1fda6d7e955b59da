import * as THREE from 'three';
import { describe, expect, it } from 'vitest';
import type { Effect } from '@jinx/core/document';
import { skinnedVertex } from '@jinx/core/geometry';
import { newFrame, playAlone, type Frame } from '@jinx/core/simulation';
import { effectOf, onStage, TUBE } from '../core/testing/effects.ts';
import { bendingTube } from '../core/testing/rigs.ts';
import { FigureMesh } from './figure.ts';
import { Figures } from './figures.ts';
import { Guides } from './guides.ts';
import { newCommonUniforms } from './looks/light.ts';
import { drawnMatrixInto } from './matrices.ts';

const rig = bendingTube();

/** A frame of the tube in mid-bend, walking round its circle. */
const frameAt = (step: number) => frameOf(onStage('sway', { kind: 'circle', radius: 3 }), step);
function frameOf(things: Effect['stage']['things'], step = 37): Frame {
  const effect = effectOf(() => undefined);
  effect.stage.things = things;
  const world = playAlone(effect, new Map([[TUBE, rig]]));
  world.advance(step);
  const frame = newFrame(world);
  world.writeFrame(frame);
  return frame;
}
const figure = () =>
  new FigureMesh(
    { mesh: rig.mesh, texture: rig.texture, inverseBind: rig.inverseBind, boneStart: 0 },
    newCommonUniforms(),
  );

/** Where a frame's matrix stands. */
function placeOf(frame: Frame, number: number, share: number, drawn: FigureMesh): number[] {
  const matrix = new THREE.Matrix4();
  expect(drawnMatrixInto(matrix, number, frame, share, [drawn])).toBe(true);
  return matrix.elements.slice(12, 15);
}

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
    const placeAt = (share: number) => placeOf(frame, bone, share, drawn);
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
      { matrix: bone, points, tone: 'source' },
      { matrix: -1, points, tone: 'force' },
    ]);
    const frame = frameAt(20);
    guides.follow((number, out) => drawnMatrixInto(out, number, frame, 1, [drawn]));
    const [hung, standing] = guides.group.children as THREE.LineSegments[];
    expect(hung!.matrix.elements.slice(12, 15)).toEqual(placeOf(frame, bone, 1, drawn));
    expect(standing!.matrix.equals(new THREE.Matrix4())).toBe(true);
    guides.set([]);
    expect(guides.group.children).toHaveLength(0);
  });
});

describe('the figures of a scene', () => {
  it('tells where a hidden one has its feet too, and leaves out its shadow', () => {
    const figures = new Figures(new THREE.Group(), newCommonUniforms());
    const [first, second] = [onStage('sway', { kind: 'circle', radius: 3 }), onStage('sway')];
    const frame = frameOf({
      ...first,
      order: ['figure', 'other'],
      byId: { ...first.byId, other: second.byId['figure']! },
    });
    const standing = (boneStart: number) => ({
      mesh: rig.mesh,
      texture: null,
      inverseBind: rig.inverseBind,
      boneStart,
    });
    figures.set([standing(0), standing(rig.bones.length + 1)], () => undefined);
    const pose = () => figures.pose(frame, 1, () => false);
    const feet = pose();
    expect(feet).toHaveLength(2);
    expect(feet[0]).not.toEqual(feet[1]);
    expect(figures.castShadows(feet)).toEqual(feet);
    figures.hide([0]);
    expect(pose()).toEqual(feet);
    expect(figures.all.map(({ mesh }) => mesh.visible)).toEqual([false, true]);
    expect(figures.castShadows(feet)).toEqual([feet[1]]);
    figures.setMode('hides');
    expect(figures.castShadows(feet)).toEqual([]);
  });
});
