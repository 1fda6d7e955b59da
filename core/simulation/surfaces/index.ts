export * from './bind.ts';
export * from './collider.ts';
export { Hits } from './hits.ts';
