export * from './colours.ts';
export * from './curves.ts';
export * from './functions.ts';
export * from './hash.ts';
export * from './noise.ts';
export * from './rigid.ts';
export * from './srgbTable.ts';
export * from './vectors.ts';
