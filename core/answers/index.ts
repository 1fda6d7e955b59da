export { news, parcelChoices, parcelRefusal, role } from './shapes.ts';
export * from './routes.ts';
export type * from './types.ts';
