export * from './protocol.ts';
export { gameDistance, GAME_FIGURE, isColoured, layerTone, RAMP, SPEEDS } from './views.ts';
export { StageContext } from './context.ts';
export { GuestStage } from './guestStage.ts';
export { Pace } from './pace.ts';
export { drawTimes } from './answers.ts';
export { Stage } from './stage.ts';
export type { MarkShot, Shot, ShotLayer, ShotMarks, ShotPixels } from './shots.ts';
