import { Digest } from './digest.ts';
import type { Frame } from '../frames/frame.ts';
import type { Running } from '../run/running.ts';
import { SIMULATION } from '../version.ts';

/** Hash of state and dress at a step, by layer salt then order of birth; −0 counts as 0. The frame shows that step. */
export function hashOf(step: number, running: readonly Running[], frame: Frame): string {
  const digest = new Digest();
  digest.word(SIMULATION);
  digest.word(step);
  for (const { compiled, population } of running) {
    digest.word(compiled.layer.salt);
    digest.word(population.living);
    for (let i = 0; i < population.count; i++) {
      if (population.isDead(i)) continue;
      digest.word(population.key[i]!);
      digest.number(population.life[i]!);
      for (const axis of [...population.position, ...population.velocity, ...population.begun])
        digest.number(axis[i]!);
    }
  }
  const take = (from: number, to: number) => {
    for (let i = from; i < to; i++) digest.word(frame.f32[i] === 0 ? 0 : frame.u32[i]!);
  };
  const bones = frame.boneAt(0, false);
  for (let i = bones; i < bones + frame.bones * 32; i++) digest.number(frame.f32[i]!);
  take(frame.recordAt(0), frame.recordAt(frame.particles));
  for (const { own, count, ownWords } of frame.layers()) take(own, own + count * ownWords);
  take(frame.jointAt(0), frame.jointAt(frame.jointCount));
  return digest.text;
}
