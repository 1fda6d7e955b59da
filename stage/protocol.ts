import type { RigMesh, Texture } from '@jinx/core/geometry';
import type { OwnFrames } from '@jinx/core/simulation';

/** How one layer is drawn: what the stage must know beside the frame. */
export interface DrawnLayer {
  readonly salt: number;
  readonly isVisible: boolean;
  readonly facing: 'camera' | 'ground' | 'own frame';
  /** How sprites stand in their own frames. */
  readonly frames: OwnFrames;
  /** Whether its sprites are turned from where they are going rather than from upright. */
  readonly isAligned: boolean;
  readonly blend: 'additive' | 'normal';
  readonly shape: string;
  /** Whether its particles are drawn as ribbons, whatever their kind. */
  readonly isRibbon: boolean;
}

/** Line segments that explain a source or a force; they hang on one of a frame's matrices, or stand in the world. */
export interface Guide {
  /** Number of the matrix: a bone, a thing's feet, the effect's own frame; −1 for the world. */
  readonly matrix: number;
  /** Pairs of points, three numbers each. */
  readonly points: Float32Array;
  readonly tone: 'source' | 'force' | 'surface' | 'faint';
}

export type Surround = 'dusk' | 'overcast' | 'noon';

export interface StageFigure {
  readonly mesh: RigMesh;
  readonly texture: Texture | null;
  readonly inverseBind: Float32Array;
  /** Where its bones begin among a frame's matrices; its feet follow them. */
  readonly boneStart: number;
}

/** Where the matrices that the page asked for stand in the picture last drawn, and how far the camera has gone along. */
export interface Tracked {
  /** Sixteen numbers each, in the order they were asked for; all zero for one that the frame does not have. */
  readonly matrices: Float32Array;
  readonly followed: readonly [x: number, z: number];
}

/** What the page tells the stage. */
export type ToStage =
  | { kind: 'start'; canvas: OffscreenCanvas; width: number; height: number }
  | { kind: 'size'; width: number; height: number }
  | { kind: 'camera'; position: number[]; target: number[]; fieldOfView: number; follows: boolean }
  | { kind: 'frames'; buffer: ArrayBufferLike; address: number; mostRecords: number; mostJoints: number }
  /** The camera goes with the figure of that number, if it goes with any. */
  | { kind: 'figures'; figures: StageFigure[]; followed: number }
  /** From front to back. */
  | { kind: 'layers'; layers: DrawnLayer[] }
  | { kind: 'guides'; guides: Guide[]; isShown: boolean }
  | { kind: 'surround'; surround: Surround }
  /** Which of a frame's matrices the page wants to hear of as they are drawn. */
  | { kind: 'track'; matrices: number[] }
  | { kind: 'figureShown'; isShown: boolean }
  | { kind: 'pace'; isPlaying: boolean; stepsPerSecond: number }
  | { kind: 'pixels'; id: number; width: number; height: number }
  /** Draws the present picture `times` over, each to its end. */
  | { kind: 'time'; id: number; times: number };

/** What the stage tells the page. */
export type FromStage =
  | { kind: 'drawn'; step: number; drawMilliseconds: number; drawn: number }
  | ({ kind: 'tracked' } & Tracked)
  | { kind: 'pixels'; id: number; width: number; height: number; rgba: Uint8Array }
  | { kind: 'time'; id: number; milliseconds: number[] }
  | { kind: 'failed'; sentence: string };
