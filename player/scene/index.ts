export * from './drawn.ts';
export * from './feed.ts';
export * from './figures.ts';
export * from './cameras.ts';
