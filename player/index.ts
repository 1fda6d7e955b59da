export type * from './api.ts';
export { createPlayer } from './canvas/createPlayer.ts';
export { defineElement, JinxEffectElement } from './canvas/element.ts';
