export * from './mirror.ts';
export * from './regroup.ts';
export * from './resize.ts';
