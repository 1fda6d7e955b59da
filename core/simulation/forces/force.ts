import {
  FORCE_SETTINGS,
  type Effect,
  type Force,
  type NumberDeclaration,
  type NumberSetting,
} from '../../document/index.ts';
import type { KernelName } from '../../kernels/index.ts';
import type { GroupFrame } from '../groups.ts';
import { NumberReader, type Reading } from '../reader.ts';
import type { Scene } from '../scene.ts';

/** What a force is told when it is bound to a layer. */
export interface ForceSurroundings {
  readonly id: string;
  readonly effect: Effect;
  readonly scene: Scene;
  readonly group: GroupFrame;
}

/** What a force is told at each step. */
export interface ForceMoment {
  /** The end of the step, in seconds. */
  readonly time: number;
  /** A reading set to no particle in particular, for values all particles share. */
  readonly shared: Reading;
}

/** A kernel call of one step: strengths first (each gives an address and whether it varies), then the other values. */
export interface ForceCall {
  readonly kernel: KernelName;
  readonly values: readonly number[];
}

/** A force with its settings looked up. */
export interface BoundForce {
  /** Strengths per particle, in the order its kernel takes them. */
  readonly strengths: readonly NumberReader[];
  call(moment: ForceMoment): ForceCall;
}

/** Reads one number setting of a force; `scale` is what the layer's groups make of it. */
export function forceNumber(force: Force, name: string, { id, effect }: ForceSurroundings, scale = 1): NumberReader {
  const table = FORCE_SETTINGS[force.kind] as Record<string, NumberDeclaration>;
  const settings = force.settings as unknown as Record<string, NumberSetting>;
  return new NumberReader(settings[name]!, table[name]!, `force/${id}/${name}`, effect, scale);
}

/** 1 / reach², or 0 for a reach of 0, which is no limit. */
export function inverseReach(reach: number): number {
  return reach > 0 ? Math.fround(1 / (reach * reach)) : 0;
}

/** Metres within which a pull softens, so that nothing is flung from the very middle. */
const NEAR = 0.05;

/** The softening for a layer whose groups scale it, squared. */
export const nearSquared = (scale: number): number => Math.fround(NEAR * NEAR * scale * scale);
