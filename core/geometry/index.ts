export * from './figure.ts';
export * from './pose.ts';
export * from './rig.ts';
export * from './skin.ts';
export * from './surface.ts';
