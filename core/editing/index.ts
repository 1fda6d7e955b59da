export * from './chapters.ts';
export * from './clip.ts';
export * from './compare.ts';
export * from './follow.ts';
export * from './mirror.ts';
export * from './names.ts';
export * from './regroup.ts';
export * from './resize.ts';
