import type { DrawnStep } from '../protocol.ts';

/** Code that yields a number of the step, by its name. */
export type Value = (name: string) => string;

export const share = (value: Value, name: string) => `(${value(name)} * 0.01)`;

/** Where a pattern looks for its grains: in a piece of its own for each particle, if wanted. */
export const grains = (step: DrawnStep, value: Value) =>
  `vec3(p * ${value('grains')}${step.choices['varied'] === true ? ' + own_piece' : ''}, clock * ${value('change')})`;
export const still = (step: DrawnStep, value: Value) =>
  `vec3(p * ${value('grains')}${step.choices['varied'] === true ? ' + own_piece' : ''}, 3.7)`;
