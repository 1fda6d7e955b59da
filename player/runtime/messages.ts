import type {
  CameraView,
  DialValue,
  EffectInfo,
  PlayingEvents,
  PlayingState,
  PlayOptions,
  Quality,
  Surround,
  Triple,
} from '../api.ts';
import type { SceneOrder } from './sceneOrder.ts';

/** What is told of one playing effect. */
export type PlayingOrder =
  | { kind: 'letGo' }
  | { kind: 'seek'; step: number; letGoStep?: number | null }
  | { kind: 'dial'; name: string; value: DialValue }
  | { kind: 'signal'; name: string }
  | { kind: 'strike'; from: Triple; to: Triple; strength: number }
  | { kind: 'place'; at: Triple; turn: Triple }
  | { kind: 'stop' };

/** What the page tells the player's worker. */
export type ToPlayer =
  | {
      kind: 'start';
      canvas: OffscreenCanvas | null;
      helper: MessagePort | null;
      width: number;
      height: number;
      figures: boolean;
    }
  | { kind: 'load'; id: number; bytes: Uint8Array }
  | { kind: 'play'; playing: number; parcel: number; effect: number; options: PlayOptions }
  | { kind: 'tell'; playing: number; order: PlayingOrder }
  | { kind: 'state'; id: number; playing: number }
  | { kind: 'hash'; id: number; playing: number }
  | { kind: 'pixels'; id: number; width: number; height: number }
  /** Draws the present picture so many times, each to its end. */
  | { kind: 'time'; id: number; times: number }
  | { kind: 'pause'; isPaused: boolean }
  | { kind: 'speed'; speed: number }
  | { kind: 'quality'; quality: Quality }
  | { kind: 'size'; width: number; height: number }
  | { kind: 'surround'; surround: Surround }
  | { kind: 'camera'; camera: CameraView };

/** What it tells the page. */
export type FromPlayer =
  | { kind: 'loaded'; id: number; licence: string; effects: EffectInfo[] }
  | { kind: 'state'; id: number; state: PlayingState | null }
  | { kind: 'hash'; id: number; hash: string | null }
  | { kind: 'pixels'; id: number; rgba: Uint8ClampedArray<ArrayBuffer> }
  | { kind: 'time'; id: number; milliseconds: number[] }
  | {
      [K in keyof PlayingEvents]: { kind: 'event'; playing: number; event: K; told: PlayingEvents[K] };
    }[keyof PlayingEvents]
  /** What the page draws itself, beside frames: in shared memory, or one by one. */
  | { kind: 'scene'; order: SceneOrder }
  | { kind: 'frames'; buffer: ArrayBufferLike; address: number; bytes: number }
  | { kind: 'frame'; buffer: ArrayBuffer }
  | { kind: 'pace'; isPlaying: boolean; stepsPerSecond: number }
  /** A question that cannot be answered. */
  | { kind: 'refused'; id: number; sentence: string }
  /** Something that was ordered cannot be done; the rest goes on. */
  | { kind: 'told'; sentence: string }
  | { kind: 'failed'; sentence: string };
