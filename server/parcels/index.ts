export { attachmentsFor } from './attachments.ts';
export * from './contents.ts';
export { keepBones, newFigures } from './figures.ts';
export { pageParts } from './page.ts';
export { sendParcel } from './send.ts';
export { takeParcel } from './take.ts';
