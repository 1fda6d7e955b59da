import type { Frame, World } from '@jinx/core/simulation';
import type { ToPlayer } from './messages.ts';
import type { SceneOrder } from './sceneOrder.ts';

/** Where effects are drawn that play. */
export interface Screen {
  /** Takes what is drawn beside what frames tell. */
  take(order: SceneOrder): void;
  /** Another world's frames are drawn from now on; they lie in its memory. */
  read(world: World): void;
  /** A frame is whole. */
  published(frame: Frame): void;
  setPace(isPlaying: boolean, stepsPerSecond: number): void;
  /** Takes an order that is for the screen alone. Returns whether it was one. */
  handle(order: ToPlayer): boolean;
  /** Draws, if it is due. */
  turn(now: number): void;
}
