export { whyNotMet } from './drawnMesh.ts';
export * from './bind.ts';
export * from './collider.ts';
export { AT, CONTACT_WORDS, type Body } from './body.ts';
export { struck } from './struck.ts';
export { Hits } from './hits.ts';
