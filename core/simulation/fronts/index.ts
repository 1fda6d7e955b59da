export * from './front.ts';
export { Releaser } from './releaser.ts';
