export * from './meaning.ts';
export * from './pin.ts';
export * from './editing.ts';
