export * from './curl.ts';
export * from './kernels.ts';
export * as layout from './layout.ts';
export * from './program.ts';
export type { TwinMemory } from './twin.ts';
