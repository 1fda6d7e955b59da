import * as kinds from './kinds.ts';

/** Every kind of force, by the name that documents know it by. */
export const FORCES = kinds;
export type ForceKind = keyof typeof FORCES;

/** The kinds by the order of their names. */
export const FORCE_KINDS = (Object.keys(FORCES) as ForceKind[]).sort();

export { swirlsOf, type Swirling } from './curl/field.ts';
export {
  TARGET_ARRAYS,
  type Changes,
  type ForceAction,
  type ForceBinding,
  type ForceKindDefinition,
  type ForceNumber,
  type ForcePhase,
  type ForceWriter,
  type TargetKind,
} from './force.ts';
export type { ForceHandle, GuidePiece, GuideReader, GuideShape, GuideSwirls } from './guide.ts';
