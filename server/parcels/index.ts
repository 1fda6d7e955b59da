export * from './contents.ts';
export { keepBones, newFigures } from './figures.ts';
export { sendParcel } from './send.ts';
export { takeParcel } from './take.ts';
