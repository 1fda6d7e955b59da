export * from './effects/index.ts';
export * from './kit.ts';
