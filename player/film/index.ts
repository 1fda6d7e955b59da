export type * from './protocol.ts';
