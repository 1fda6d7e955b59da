export * from './instantQueue.ts';
export * from './instantRun.ts';
export * from './orders.ts';
export type * from './protocol.ts';
