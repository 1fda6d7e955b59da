import type { Vec3 } from '../../maths/index.ts';
import type { ChoiceName, ForceTable, NumberName, VectorName } from './table.ts';

/** A piece of what is drawn of a force or a shape, in metres of the frame of its place. */
export type GuidePiece =
  /** A small cross in the middle. */
  | { readonly draws: 'cross' }
  /** From the middle, from `from`, or from `aside` metres across the way. */
  | { readonly draws: 'arrow'; readonly way: Vec3; readonly from?: Vec3; readonly aside?: number }
  /** Along an axis, half of it to either side. */
  | { readonly draws: 'line'; readonly axis: Vec3; readonly length: number }
  /** From one point to another. */
  | { readonly draws: 'segment'; readonly from: Vec3; readonly to: Vec3 }
  /** Round an axis, about the middle or about `at`. */
  | { readonly draws: 'circle'; readonly axis: Vec3; readonly radius: number; readonly at?: Vec3 }
  /** Three circles about the middle. */
  | { readonly draws: 'globe'; readonly radius: number }
  /** The edges of a box about the middle. */
  | { readonly draws: 'box'; readonly size: Vec3 }
  /** Two circles, one across the axis and one through it. */
  | { readonly draws: 'ball'; readonly axis: Vec3; readonly radius: number }
  /** Arrows round an axis: which way it turns. */
  | { readonly draws: 'spin'; readonly axis: Vec3; readonly radius: number; readonly isBack: boolean };

/** The lines of a curl's field, so large, changing so many times a second, drifting by metres a second. */
export interface GuideSwirls {
  readonly draws: 'swirls';
  readonly size: number;
  readonly change: number;
  readonly drift: Vec3;
}
export type GuideShape = GuidePiece | GuideSwirls;

/** The settings of a force at the instant it is drawn for. */
export interface GuideReader<S extends ForceTable = ForceTable> {
  number(name: NumberName<S>): number;
  vector(name: VectorName<S>): Vec3;
  /** A vector, one metre long; straight up where it has no length. */
  axis(name: VectorName<S>): Vec3;
  choice(name: ChoiceName<S>): string;
}

/** A number that is pulled on the stage, along or across the setting `axis`. */
export interface ForceHandle<S extends ForceTable = ForceTable> {
  readonly number: NumberName<S>;
  readonly way: 'along' | 'across';
  /** Metres on the stage for each of the setting's; 1 where this is left out. */
  readonly metres?: number;
  /** It is pulled only while a choice is this. */
  readonly when?: readonly [name: ChoiceName<S>, choice: string];
}
