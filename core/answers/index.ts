export { news, parcelChoices, parcelRefusal, role, toneChoice } from './shapes.ts';
export * from './routes.ts';
export type * from './types.ts';
