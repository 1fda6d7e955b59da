import { describe, expect, it, beforeAll } from 'vitest';
import validator from 'gltf-validator';
import { importGlb, readRig, writeRig } from '@jinx/core/formats';
import { newThing } from '@jinx/core/document';
import { boneNamed, clipNamed, FigureTrack, skinMatricesInto, skinnedVertex, type Rig } from '@jinx/core/geometry';
import { rigidOf } from '@jinx/core/maths';
import { BOGLING, makeFigure, SEDGE, TALLOW } from './index.ts';

let bytes: Uint8Array;
let rig: Rig;
beforeAll(async () => {
  bytes = await makeFigure(SEDGE);
  rig = await importGlb(bytes, 'Sedge');
});

function worldAt(clip: string, time: number): Float64Array {
  const out = new Float64Array(rig.bones.length * 16);
  new FigureTrack(rig, { ...newThing('Sedge', ''), clip }).worldInto(time, out);
  return out;
}

describe('Sedge', () => {
  it('passes the Khronos glTF validator with no errors', async () => {
    const report = await validator.validateBytes(bytes);
    expect(report.issues.messages.filter(({ severity }: { severity: number }) => severity === 0)).toEqual([]);
  });

  it('has 20 to 30 bones, a blade socket, a texture and four clips', () => {
    const joints = rig.bones.filter(({ name }) => name !== 'Sedge body');
    expect(joints.length).toBeGreaterThanOrEqual(20);
    expect(joints.length).toBeLessThanOrEqual(30);
    expect(boneNamed(rig, 'blade')).toBeGreaterThan(0);
    expect(rig.texture!.width).toBe(512);
    expect(rig.clips.map(({ name }) => name)).toEqual(['idle', 'walk', 'cast', 'sweep']);
  });

  it('stands about 1.8 m tall on the ground', () => {
    const heights = rig.mesh.positions.filter((_, i) => i % 3 === 1);
    expect(heights.reduce((a, b) => Math.max(a, b))).toBeGreaterThan(1.74);
    expect(Math.abs(heights.reduce((a, b) => Math.min(a, b)))).toBeLessThan(0.02);
  });

  it('has smooth weights: neighbours never differ by more than 0.4 on any bone', () => {
    const { indices, joints, weights } = rig.mesh;
    const weightOf = (vertex: number, bone: number) => {
      for (let k = 0; k < 4; k++)
        if (joints[vertex * 4 + k] === bone && weights[vertex * 4 + k]! > 0) return weights[vertex * 4 + k]!;
      return 0;
    };
    let worst = 0;
    for (let i = 0; i < indices.length; i += 3)
      for (const [a, b] of [
        [0, 1],
        [1, 2],
        [2, 0],
      ] as const)
        for (let k = 0; k < 4; k++) {
          const bone = joints[indices[i + a]! * 4 + k]!;
          worst = Math.max(worst, Math.abs(weightOf(indices[i + a]!, bone) - weightOf(indices[i + b]!, bone)));
        }
    expect(worst).toBeLessThan(0.4);
  });

  it.each(['idle', 'walk', 'cast', 'sweep'])('closes its %s within a millimetre and a degree', (name) => {
    const clip = clipNamed(rig, name)!;
    const [start, end] = [worldAt(name, 0), worldAt(name, clip.seconds - 1e-9)];
    rig.bones.forEach((_, bone) => {
      const [a, b] = [rigidOf(start, bone * 16), rigidOf(end, bone * 16)];
      expect(Math.hypot(...a.at.map((x, i) => x - b.at[i]!))).toBeLessThan(0.001);
      expect(
        (2 * Math.acos(Math.min(1, Math.abs(a.turn.reduce((sum, q, i) => sum + q * b.turn[i]!, 0)))) * 180) / Math.PI,
      ).toBeLessThan(1);
    });
  });

  it('walks without sliding: the lowest point of the standing foot stays within 2 cm', () => {
    const clip = clipNamed(rig, 'walk')!;
    const root = clip.tracks.find(
      ({ bone, property }) => property === 'translation' && rig.bones[bone]!.name === 'root',
    )!;
    const speed = root.values[root.values.length - 1]! / clip.seconds;
    expect(speed).toBeGreaterThan(0.7);
    const foot = boneNamed(rig, 'foot.left');
    const soles = [...Array(rig.mesh.positions.length / 3).keys()].filter(
      (v) =>
        rig.mesh.positions[v * 3 + 1]! < 0.012 &&
        rig.mesh.positions[v * 3]! > 0 &&
        rig.mesh.joints.subarray(v * 4, v * 4 + 4).includes(foot),
    );
    const skin = new Float32Array(rig.bones.length * 16);
    let slid = 0;
    let stood = 0;
    let standing: { vertex: number; at: readonly number[] } | null = null;
    for (let i = 0; i < 64; i++) {
      const time = (i / 64) * clip.seconds;
      skinMatricesInto(rig, worldAt('walk', time), skin);
      const places = soles.map((vertex) => ({ vertex, at: skinnedVertex(rig, skin, vertex) }));
      const lowest = places.reduce((a, b) => (b.at[1] < a.at[1] ? b : a));
      if (lowest.at[1] > 0.004) {
        standing = null;
        continue;
      }
      stood++;
      if (standing) {
        const now = places.find(({ vertex }) => vertex === standing!.vertex)!;
        const moved = Math.hypot(
          now.at[0] - standing.at[0]!,
          now.at[2] + (speed / 64) * clip.seconds - standing.at[2]!,
        );
        slid += moved;
      }
      standing = lowest;
    }
    expect(stood).toBeGreaterThan(30);
    expect(slid).toBeLessThan(0.02);
  });

  it('bends its knees forward and keeps its feet on the ground in every clip', () => {
    for (const { name, seconds } of rig.clips)
      for (let i = 0; i < 40; i++) {
        const world = worldAt(name, (i / 40) * seconds);
        const at = (bone: string) => rigidOf(world, boneNamed(rig, bone) * 16).at;
        for (const side of ['left', 'right']) {
          const straight = (at(`thigh.${side}`)[2] + at(`foot.${side}`)[2]) / 2;
          expect(at(`shin.${side}`)[2]).toBeGreaterThan(straight - 0.06);
          expect(at(`foot.${side}`)[1]).toBeGreaterThan(0.05);
        }
      }
  });

  it('comes through its canonical form unchanged', () => {
    const again = readRig(writeRig(rig));
    expect(Buffer.from(writeRig(again)).equals(Buffer.from(writeRig(rig)))).toBe(true);
    expect(again.bones).toEqual(rig.bones);
  });
});

describe.each([
  { plan: TALLOW, tall: 1.9, clips: ['idle', 'walk', 'guard', 'raise'], holds: ['lamp', 'shield'] },
  { plan: BOGLING, tall: 1.4, clips: ['idle', 'walk', 'struck', 'pound'], holds: ['lamp'] },
])('$plan.name', ({ plan, tall, clips, holds }) => {
  let made: Uint8Array;
  let figure: Rig;
  beforeAll(async () => {
    made = await makeFigure(plan);
    figure = await importGlb(made, plan.name);
  });

  it('passes the Khronos glTF validator, with its clips and what it holds', async () => {
    const report = await validator.validateBytes(made);
    expect(report.issues.messages.filter(({ severity }: { severity: number }) => severity === 0)).toEqual([]);
    expect(figure.clips.map(({ name }) => name)).toEqual(clips);
    for (const name of holds) expect(boneNamed(figure, name)).toBeGreaterThan(0);
  });

  it('stands on the ground, as tall as it should be, and keeps its feet there in every clip', () => {
    const heights = figure.mesh.positions.filter((_, i) => i % 3 === 1);
    expect(Math.abs(heights.reduce((a, b) => Math.min(a, b)))).toBeLessThan(0.03);
    expect(heights.reduce((a, b) => Math.max(a, b))).toBeCloseTo(tall, 0);
    for (const { name, seconds } of figure.clips) {
      const track = new FigureTrack(figure, { ...newThing(plan.name, ''), clip: name });
      const world = new Float64Array(figure.bones.length * 16);
      for (let i = 0; i < 30; i++) {
        track.worldInto((i / 30) * seconds, world);
        for (const foot of ['foot.left', 'foot.right']) {
          const height = world[boneNamed(figure, foot) * 16 + 13]!;
          expect(height).toBeGreaterThan(0.03);
          expect(height).toBeLessThan(0.3);
        }
      }
    }
  });

  it('closes its clips within a millimetre', () => {
    for (const { name, seconds } of figure.clips) {
      const track = new FigureTrack(figure, { ...newThing(plan.name, ''), clip: name });
      const [start, end] = [0, seconds - 1e-9].map((time) => {
        const world = new Float64Array(figure.bones.length * 16);
        track.worldInto(time, world);
        return world;
      }) as [Float64Array, Float64Array];
      for (let bone = 0; bone < figure.bones.length; bone++)
        expect(Math.hypot(...[12, 13, 14].map((k) => start[bone * 16 + k]! - end[bone * 16 + k]!))).toBeLessThan(
          0.001,
        );
    }
  });
});
