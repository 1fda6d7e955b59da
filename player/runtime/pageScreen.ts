import { type Frame, type World } from '@jinx/core/simulation';
import type { FromPlayer } from './messages.ts';
import type { SceneOrder } from './sceneOrder.ts';
import type { Screen } from './screen.ts';

type Tell = (message: FromPlayer, transfer?: Transferable[]) => void;

/** Hands everything to the page, which draws it in a scene of its own. */
export class PageScreen implements Screen {
  readonly #tell: Tell;
  #isShared = false;

  constructor(tell: Tell) {
    this.#tell = tell;
  }

  take(order: SceneOrder): void {
    this.#tell({ kind: 'scene', order });
  }

  /** Where memory is shared the page reads frames where they lie; where it is not, each is sent as a copy. */
  read({ frames, memory: { buffer } }: World): void {
    this.#isShared = typeof SharedArrayBuffer !== 'undefined' && buffer instanceof SharedArrayBuffer;
    const { address, bytes } = frames!;
    if (this.#isShared) this.#tell({ kind: 'frames', buffer, address, bytes });
  }

  published(frame: Frame): void {
    if (this.#isShared) return;
    const { buffer, byteOffset } = frame.u32;
    const copy = buffer.slice(byteOffset, byteOffset + frame.usedBytes) as ArrayBuffer;
    this.#tell({ kind: 'frame', buffer: copy }, [copy]);
  }

  setPace(isPlaying: boolean, stepsPerSecond: number): void {
    this.#tell({ kind: 'pace', isPlaying, stepsPerSecond });
  }

  handle(): boolean {
    return false;
  }

  turn(): void {
    // The page draws.
  }
}
