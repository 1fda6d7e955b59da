export type * from '../api.ts';
export type * from './api.ts';
export { createSceneEffects } from './createSceneEffects.ts';
