export * from './effects/lamplitMantle.ts';
export * from './kit.ts';
