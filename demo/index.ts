export * from './kit.ts';
