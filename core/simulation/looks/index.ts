export * from './plan.ts';
export * from './values.ts';
