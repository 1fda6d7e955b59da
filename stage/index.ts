export * from './protocol.ts';
export { gameDistance, GAME_FIGURE, isColoured, layerTone, RAMP, SPEEDS } from './views.ts';
export { StageContext } from './context.ts';
export { Stage } from './stage.ts';
