import { describe, expect, it } from 'vitest';
import { bendingTube } from '../testing/rigs.ts';
import { matchBones, type Rig } from './index.ts';

const tube = bendingTube();
/** A tube as tall as asked, whose bones have other names. */
function tallTube(names: readonly [string, string], scale: number): Rig {
  const { positions } = tube.mesh;
  return {
    ...tube,
    bones: tube.bones.map((bone, n) => ({
      ...bone,
      name: names[n]!,
      translation: [bone.translation[0] * scale, bone.translation[1] * scale, bone.translation[2] * scale],
    })),
    mesh: { ...tube.mesh, positions: positions.map((x) => x * scale) },
  };
}

describe('bones of another rig', () => {
  it('are those of the same name, then of the same words in any spelling', () => {
    const own = tallTube(['hips', 'upperArm.L'], 1);
    expect(matchBones(own, tallTube(['hips', 'left_upper_arm'], 1), ['hips', 'upperArm.L'])).toEqual([
      { bone: 'hips', to: 'hips', by: 'name' },
      { bone: 'upperArm.L', to: 'left_upper_arm', by: 'likeness' },
    ]);
    expect(matchBones(own, tallTube(['x', 'rig:ArmUpperLeft'], 1), ['upperArm.L'])[0]!.to).toBe('rig:ArmUpperLeft');
    expect(matchBones(own, tallTube(['root', 'upperArm.R'], 1), ['upperArm.L'])[0]!.by).toBe('place');
  });

  it('else are those that rest nearest, however tall either is', () => {
    expect(matchBones(tube, tallTube(['foot', 'crown'], 3), ['low', 'high'])).toEqual([
      { bone: 'low', to: 'foot', by: 'place' },
      { bone: 'high', to: 'crown', by: 'place' },
    ]);
  });
});
