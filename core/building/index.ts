export * from './build.ts';
export * from './ready.ts';
