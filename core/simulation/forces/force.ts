import type { TargetKind } from '../targets.ts';
import {
  FORCE_SETTINGS,
  type Effect,
  type Force,
  type NumberDeclaration,
  type NumberSetting,
  type Place,
  type Vector,
  type VectorSetting,
  settingsByName,
  type ChoiceSetting,
  tableByName,
  type VectorDeclaration,
  type ChoiceDeclaration,
} from '../../document/index.ts';
import { FALLOFFS, type CallName, type Falloff } from '../../kernels/index.ts';
import type { Vec3 } from '../../maths/index.ts';
import type { GroupFrame } from '../groups.ts';
import { NumberReader } from '../reader.ts';
import type { Scene } from '../scene.ts';

/** What a force is told when it is bound to a layer. */
export interface ForceSurroundings {
  readonly id: string;
  readonly effect: Effect;
  readonly scene: Scene;
  readonly group: GroupFrame;
}

/** Where in a step a force acts: velocities beside their own, then accelerations and drags, then constraints. */
export type ForcePhase = 'velocity' | 'acceleration' | 'constraint';

/** An address and whether a value stands there for each particle. */
export type Value = readonly [address: number, each: number];

/** What a force writes its share of a step's program with. */
export interface ForceWriter {
  /** The end of the step as fields take it (in a hold without a seam it comes again), and how long it is, in seconds. */
  readonly time: number;
  readonly seconds: number;
  readonly step: number;
  /** Where the force stands at the end of the step. */
  readonly at: Vec3;
  /** A direction of the place the force stands in, as one of the world, one metre long. */
  direction(local: Vec3): Vec3;
  /** The three axes of that place, one after another. */
  axes(): number[];
  /** What a field that changes so many times a second stands at: which change, the next, and how far toward it. */
  changes(perSecond: number): { readonly now: number; readonly next: number; readonly share: number };
  /** What all particles share of a setting. */
  shared(reader: NumberReader): number;
  /** A setting per particle at the step's start or end, weakened by the force's share, reach and falloff. */
  value(reader: NumberReader, when?: 'start' | 'end', sign?: 1 | -1): Value;
  /** A setting per particle, as it is. */
  plain(reader: NumberReader): Value;
  /** A place for each particle, as addresses of arrays. */
  targets(kind: TargetKind): readonly [number, number, number];
  /** 1 / reach² for a call that fades softly by itself, so that `value` need not; 0 where there is no reach. */
  ownFade(): number;
  call(name: CallName, values: readonly number[]): void;
  /** Accelerates along a direction; what all particles share is summed beforehand, for the whole layer. */
  push(reader: NumberReader, way: Vec3): void;
  /** Slows; what all particles share is summed beforehand, and the integrator then works it out once for the layer. */
  drag(reader: NumberReader): void;
}

/** A force with its settings looked up. */
export interface BoundForce {
  readonly phase: ForcePhase;
  /** Settings that may differ from particle to particle. */
  readonly readers: readonly NumberReader[];
  readonly where: ForceWhere;
  /** Arrays it needs beside those of its readers. */
  readonly arrays?: number;
  write(writer: ForceWriter): void;
}

/** On whom and where a force acts. */
export interface ForceWhere {
  readonly place: Place;
  /** The matrix of the groups it stands in. */
  readonly group: Float64Array | null;
  readonly reach: NumberReader | null;
  readonly falloff: number;
  /** Share of the particles, 0 to 1, and the slot that draws them. */
  readonly share: number;
  readonly shareSlot: string;
  /** m/s² below which it does not act. */
  readonly threshold: number;
}

/** Reads one number setting of a force, as the layer's groups make it, and `times` as much. */
export function forceNumber(force: Force, name: string, around: ForceSurroundings, times = 1): NumberReader {
  const { id, effect, group } = around;
  const table = tableByName<NumberDeclaration>(FORCE_SETTINGS[force.kind]);
  const settings = settingsByName<NumberSetting>(force);
  return new NumberReader(settings[name]!, table[name]!, `force/${id}/${name}`, effect, {
    group: group.scale,
    times,
  });
}

/** A vector setting that does not vary. */
export function forceVector(force: Force, name: string): Vector {
  const setting = settingsByName<VectorSetting>(force)[name]!;
  const table = tableByName<VectorDeclaration>(FORCE_SETTINGS[force.kind]);
  const [x, y, z] = setting.muted || setting.base.kind !== 'fixed' ? table[name]!.byDefault : setting.base.value;
  return [x, y, z];
}

export function forceChoice(force: Force, name: string): string {
  const setting = settingsByName<ChoiceSetting>(force)[name]!;
  const table = tableByName<ChoiceDeclaration>(FORCE_SETTINGS[force.kind]);
  return setting.muted ? table[name]!.byDefault : setting.base.value;
}

/** Looks up where a force acts. */
export function forceWhere(force: Force, around: ForceSurroundings): ForceWhere {
  const has = (name: string) => name in FORCE_SETTINGS[force.kind];
  const still = (name: string) => forceNumber(force, name, around).low;
  return {
    place: force.place,
    group: around.group.matrix,
    reach: has('reach') ? forceNumber(force, 'reach', around) : null,
    falloff: has('falloff') ? FALLOFFS.indexOf(forceChoice(force, 'falloff') as Falloff) : 0,
    share: still('share') / 100,
    shareSlot: `force/${around.id}/share`,
    threshold: has('threshold') ? still('threshold') * around.group.scale : 0,
  };
}

/** 1 / reach², or 0 for a reach of 0, which is no limit. */
export function inverseReach(reach: number): number {
  return reach > 0 ? Math.fround(1 / (reach * reach)) : 0;
}

/** The softening of a force in its place, squared: within it, it weakens toward the very middle. */
export function softnessSquared(force: Force, around: ForceSurroundings): number {
  const metres = forceNumber(force, 'softness', around).low;
  const { scale } = around.group;
  return Math.fround(metres * metres * scale * scale);
}
