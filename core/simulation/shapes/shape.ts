import { cubeRoot, setThree, type Vec3 } from '../../maths/index.ts';
import type { GuidePiece } from '../forces/index.ts';

/**
 * A point of a shape in its own frame, whose axis is Y: where it is, which way is outward, the normal, and a direction
 * along the shape. Three numbers each.
 */
export class LocalPoint {
  readonly at = new Float64Array(3);
  readonly out = new Float64Array(3);
  readonly normal = new Float64Array(3);
  readonly along = new Float64Array(3);
}

/** The measures of a shape at one moment, in metres and radians. */
export interface Measures {
  radius: number;
  length: number;
  thickness: number;
  /** Share of the full turn, 0 to 1. */
  arc: number;
  /** How far from the top a sphere reaches. */
  rise: number;
  /** How far a cone's sides lean. */
  angle: number;
  /** Share of a volume that is used, from its surface inward. */
  depth: number;
  readonly size: Float64Array;
}

/** The measures that say how large a shape is; a layer's settings of the same names, behind "source.", hold them. */
export type MeasureName = Exclude<keyof Measures, 'depth'>;

export type Region = 'surface' | 'edge' | 'volume' | 'vertices';

/** A measure that is pulled on the stage: so many metres of the stage for each of its own, along each axis. A size is pulled by its sides. */
export interface ShapeHandle {
  readonly measure: MeasureName;
  readonly way?: Vec3;
}

/**
 * A shape that particles are born on: all there is to know about it. The document, the interface and the simulation read
 * this; adding one touches its own file and the list in kinds.ts.
 */
export interface ShapeDefinition {
  /** Where particles are born on it: the rest of "Born …". */
  readonly words: string;
  /** What people of the trade also call it. */
  readonly otherWords: readonly string[];
  readonly measures: readonly MeasureName[];
  /** Whether there is a surface, an edge or an inside to choose. */
  readonly hasRegions: boolean;
  /** Over how many dimensions births spread evenly. */
  dimensions(region: Region): 1 | 2 | 3;
  /** It has no height: evenly spread over two dimensions, the second is its depth. */
  readonly isFlat?: true;
  /** What is drawn of it about its place; `angle` in radians. */
  guide(measures: Pick<Measures, 'radius' | 'length' | 'angle' | 'size'>): readonly GuidePiece[];
  readonly handles: readonly ShapeHandle[];
  /** Writes its point for three shares u, v, w (each 0 ≤ … < 1). */
  pointInto(p: LocalPoint, shares: Float64Array, region: Region, measures: Measures): void;
}

/** Makes the normal point outward. */
export const faceOutward = ({ normal, out }: LocalPoint): void => setThree(normal, out[0]!, out[1]!, out[2]!);

/** The radius of a shape filled to a depth: births spread evenly over what is filled. */
export function filled(w: number, depth: number, dimensions: 2 | 3): number {
  if (depth === 0) return 1;
  const inner = 1 - depth;
  const hole = dimensions === 2 ? inner * inner : inner * inner * inner;
  const u = hole + (1 - hole) * w;
  return dimensions === 2 ? Math.sqrt(u) : cubeRoot(u);
}

/** Dimensions of a shape with a surface and an inside. */
export const ofSolid = (region: Region): 2 | 3 => (region === 'volume' ? 3 : 2);
