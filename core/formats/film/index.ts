export * from './advice.ts';
export * from './amounts.ts';
export * from './exr.ts';
export * from './pixels.ts';
export * from './png.ts';
export * from './settings.ts';
export * from './sheet.ts';
export * from './webp.ts';
