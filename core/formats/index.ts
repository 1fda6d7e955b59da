export * from './canonicalPicture.ts';
export * from './canonicalRig.ts';
export * from './errors.ts';
export * from './gltf.ts';
export * from './hashName.ts';
export * from './parcel.ts';
export * from './pictures.ts';
