export { news, parcelChoice, parcelRefusal, role } from './shapes.ts';
export * from './routes.ts';
export type * from './types.ts';
