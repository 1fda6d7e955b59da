export * from './app.ts';
export * from './database.ts';
export * from './kit.ts';
