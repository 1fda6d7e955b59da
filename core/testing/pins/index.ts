export * from './meaning.ts';
export * from './pin.ts';
