export * from './curl.ts';
export * from './dress.ts';
export { decayOf } from './integrate.ts';
export * from './kernels.ts';
export * as layout from './layout.ts';
export { CALL_NAMES, type CallName, type CallValues, PROGRAM_WORDS, ProgramWriter, scratchSlot } from './program.ts';
export { CELLS } from './shape.ts';
export type { TwinMemory } from './twin.ts';
export { FALLOFFS, type Falloff } from './where.ts';
