export * from './bind.ts';
export * from './collider.ts';
export { struck } from './struck.ts';
export { Hits } from './hits.ts';
