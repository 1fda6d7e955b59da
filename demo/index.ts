export * from './effects/index.ts';
export * from './kit.ts';
export * from './starts.ts';
export * from './pictures.ts';
