export * from './curl.ts';
export * from './kernels.ts';
export * from './layout.ts';
export * from './program.ts';
export type { TwinMemory } from './twin.ts';
