import type { Change, Effect, Vector } from '@jinx/core/document';
import type { Rig } from '@jinx/core/geometry';
import type { KernelBytes } from '@jinx/core/kernels';
import type { Census, Inputs, Pull } from '@jinx/core/simulation';

/** Blows and signals from outside, each at its step. */
export type Outside = Required<Pick<Inputs, 'strikes' | 'signals'>>;

/** What the page tells the simulation's worker. */
export type ToSimulation =
  | { kind: 'start'; kernels: KernelBytes; helper: MessagePort | null }
  | { kind: 'load'; effect: Effect; rigs: readonly (readonly [string, Rig])[]; budget: number; edit: number }
  /** What is not the same as in the document told last. `edit` counts them: every frame carries the number of the last edit that is in it. */
  | { kind: 'edit'; changes: readonly Change[]; edit: number }
  /** Another stage reads the frames: the buffer begins anew, with the present frame. */
  | { kind: 'frames' }
  | { kind: 'play' }
  | { kind: 'pause' }
  | { kind: 'speed'; speed: number }
  /** Goes to a step of the sheet; `letGoStep` when the sheet's closing is to be seen. */
  | { kind: 'seek'; step: number; letGoStep?: number }
  | { kind: 'letGo' }
  /** All layers but this one are shown at the fullest instant seen of each; null shows them as they are. */
  | { kind: 'compare'; layer: string | null }
  /** A blow at this instant from one place toward another: of the world, or seen from where a thing stands. */
  | { kind: 'strike'; from: Vector; to: Vector; beside: string | null }
  /** What came from outside, as it did elsewhere. */
  | { kind: 'outside'; outside: Outside }
  /** A signal, announced at this instant. */
  | { kind: 'announce'; signal: string }
  /** Frames of instants of the time sheet, in seconds, computed beside what plays; none ends that. */
  | { kind: 'instants'; id: number; seconds: number[] }
  /** Asks to be told once the step that is wanted is there, and its frame published. */
  | { kind: 'settled'; id: number }
  | { kind: 'hash'; id: number }
  | { kind: 'inspect'; id: number; layer: string }
  | { kind: 'census'; id: number; layer: string }
  /** What each force does to the particle of that key at the present step; a newer question ends an older one. */
  | { kind: 'pulls'; id: number; layer: string; key: number };

export interface LayerCount {
  readonly salt: number;
  readonly living: number;
  readonly born: number;
  readonly refused: number;
  /** Births that found no particle of another layer to be born on. */
  readonly lost: number;
  readonly milliseconds: number;
}

/** How the simulation stands. */
export interface SimulationState {
  step: number;
  /** Seconds along the time sheet. */
  sheetTime: number;
  living: number;
  layers: LayerCount[];
  stepMilliseconds: number;
  isExact: boolean;
  isPlaying: boolean;
  /** Share of a recomputation that is done; 1 when there is none. */
  progress: number;
  /** Share of the exact run behind what plays that is done; 1 when there is none. */
  settled: number;
  isLetGo: boolean;
  /** The step it was let go at; null while it is held. */
  letGoStep: number | null;
}

/** What the worker tells the page. */
export type FromSimulation =
  | { kind: 'frames'; buffer: ArrayBufferLike; address: number; bytes: number }
  | { kind: 'state'; state: SimulationState }
  | { kind: 'instant'; id: number; buffer: ArrayBuffer; share: number }
  /** What came from outside is another now. */
  | { kind: 'outside'; outside: Outside }
  | { kind: 'settled'; id: number; step: number }
  | { kind: 'hash'; id: number; step: number; hash: string | null }
  | {
      kind: 'inspect';
      id: number;
      step: number;
      positions: Float32Array;
      ages: Float32Array;
      colours: Float32Array;
    }
  | { kind: 'census'; id: number; census: Census }
  /** Null where the question was given up. */
  | { kind: 'pulls'; id: number; step: number; pulls: readonly Pull[] | null }
  /** A question that cannot be answered. */
  | { kind: 'refused'; id: number; sentence: string }
  | { kind: 'failed'; sentence: string };

/** What the page tells the worker that computes instants of effects, for pictures of them. */
export type ToInstants =
  | { kind: 'start'; kernels: KernelBytes }
  /** Rigs that runs from now on may name. */
  | { kind: 'rigs'; rigs: readonly (readonly [string, Rig])[] }
  /** Instants of an effect, in seconds of its time sheet, rising; runs are computed one after another. */
  | { kind: 'run'; id: number; effect: Effect; rigs: readonly string[]; budget: number; seconds: readonly number[] }
  /** Nobody waits for that run any more. */
  | { kind: 'stop'; id: number };

/** What it tells the page. */
export type FromInstants =
  | { kind: 'instant'; id: number; buffer: ArrayBuffer }
  /** A run that cannot be computed. */
  | { kind: 'refused'; id: number; sentence: string };
