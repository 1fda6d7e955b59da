export * from './build.ts';
export * from './ready.ts';
export * from './readyPictures.ts';
