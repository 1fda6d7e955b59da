// A thread does not take over how its process reads TypeScript: it is told here.
import { register } from 'tsx/esm/api';

register();
export const {
  importFile,
  importParcel,
  exportParcel,
  openAsset,
  attachments,
  bonesOf,
  matchFigures,
  searchEffects,
  checkPicture,
} = await import('./tasks.ts');
