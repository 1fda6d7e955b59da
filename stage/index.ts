export * from './protocol.ts';
export { gameDistance, GAME_FIGURE, isColoured, layerTone, RAMP, SPEEDS } from './views.ts';
