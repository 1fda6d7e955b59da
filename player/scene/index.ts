export * from './drawn.ts';
export * from './feed.ts';
export * from './cameras.ts';
