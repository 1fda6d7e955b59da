export * from './app.ts';
export * from './database.ts';
export * from './deleted.ts';
export type * from './house.ts';
export * from './kit.ts';
export * from './live.ts';
export * from './people/index.ts';
export * from './serve.ts';
export * from './settings.ts';
