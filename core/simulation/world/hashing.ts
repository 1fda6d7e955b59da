import { Digest } from './digest.ts';
import { BONES, JOINT_WORDS, OWN_WORDS, RECORDS, RECORD_WORDS, type Frame } from '../frames/frame.ts';
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
  const end = RECORDS + frame.particles * RECORD_WORDS;
  for (let i = BONES; i < BONES + frame.bones * 32; i++) digest.number(frame.f32[i]!);
  for (let i = RECORDS; i < end; i++) digest.word(frame.f32[i] === 0 ? 0 : frame.u32[i]!);
  for (const { start, count, ownWords } of frame.layers()) {
    const at = frame.own + start * OWN_WORDS;
    for (let i = at; i < at + count * ownWords; i++) digest.word(frame.f32[i] === 0 ? 0 : frame.u32[i]!);
  }
  const joints = frame.joints + frame.jointCount * JOINT_WORDS;
  for (let i = frame.joints; i < joints; i++) digest.word(frame.f32[i] === 0 ? 0 : frame.u32[i]!);
  return digest.text;
}
