export * from './boundingTree.ts';
export * from './figure.ts';
export * from './pose.ts';
export * from './rig.ts';
export * from './sites.ts';
export * from './skin.ts';
