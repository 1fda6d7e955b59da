export { COMBINES } from './declaration.ts';
export type {
  Acts,
  Chapter,
  ChoiceDeclaration,
  ColourDeclaration,
  Declaration,
  NumberDeclaration,
  SettingsOf,
  SwitchDeclaration,
  VectorDeclaration,
} from './declaration.ts';
export * from './channels.ts';
export * from './drawn.ts';
export * from './forces.ts';
export * from './fronts.ts';
export * from './layer.ts';
export * from './links.ts';
export * from './looks.ts';
export * from './ribbons.ts';
export * from './surfaces.ts';
