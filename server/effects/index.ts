export * from './edit.ts';
export * from './follow.ts';
export * from './followers.ts';
export * from './memory.ts';
export * from './revisions.ts';
export * from './store.ts';
export * from './tray.ts';
