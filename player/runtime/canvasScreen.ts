import type { World } from '@jinx/core/simulation';
import { drawTimes, Pace, Stage, StageContext } from '@jinx/stage';
import type { FromPlayer, ToPlayer } from './messages.ts';
import type { SceneOrder } from './sceneOrder.ts';
import type { Screen } from './screen.ts';

const MEASURE_EVERY_MILLISECONDS = 400;

type Tell = (message: FromPlayer, transfer?: Transferable[]) => void;
type Start = Extract<ToPlayer, { kind: 'start' }> & { canvas: OffscreenCanvas };

/** Draws on a canvas of the worker's own. */
export class CanvasScreen implements Screen {
  readonly #tell: Tell;
  readonly #stage: Stage;
  readonly #pace = new Pace(true);
  #measuredAt = 0;

  /** @throws where the browser gives no WebGL 2. */
  constructor({ canvas, width, height, figures }: Start, tell: Tell) {
    this.#tell = tell;
    this.#stage = new Stage(new StageContext(canvas), 'canvas', (sentence) => tell({ kind: 'told', sentence }));
    this.#stage.take({ kind: 'size', width, height });
    this.#stage.take({ kind: 'guides', guides: [], isShown: false });
    this.#stage.take({ kind: 'figureMode', mode: figures ? 'drawn' : 'none' });
  }

  take(order: SceneOrder): void {
    this.#stage.take(order);
  }

  read({ frames, memory: { buffer } }: World): void {
    const { address, bytes } = frames!;
    this.#stage.take({ kind: 'frames', buffer, address, bytes });
  }

  published(): void {
    // The stage reads them where they lie.
  }

  setPace(isPlaying: boolean, stepsPerSecond: number): void {
    this.#changePace(() => (this.#pace.isPlaying = isPlaying));
    this.#stage.take({ kind: 'pace', isPlaying, stepsPerSecond });
  }
  #changePace(change: () => void): void {
    const { fineness } = this.#pace;
    change();
    if (this.#pace.fineness !== fineness) this.#stage.drawAt(this.#pace.fineness);
  }

  handle(order: ToPlayer): boolean {
    switch (order.kind) {
      case 'size':
      case 'surround':
        this.#stage.take(order);
        return true;
      case 'camera': {
        const { position, target, fieldOfView, follows = false } = order.camera;
        this.#stage.take({ kind: 'camera', position: [...position], target: [...target], fieldOfView, follows });
        return true;
      }
      case 'pixels': {
        const { data } = this.#stage.pixels(order.width, order.height, performance.now());
        const rgba = data as Uint8ClampedArray<ArrayBuffer>;
        this.#tell({ kind: 'pixels', id: order.id, rgba }, [rgba.buffer]);
        return true;
      }
      case 'time':
        this.#tell({ kind: 'time', id: order.id, milliseconds: drawTimes(this.#stage, order.times) });
        return true;
      default:
        return false;
    }
  }

  /** Draws, and now and then measures what that costs: a machine that draws slowly draws coarsely while it plays. */
  turn(now: number): void {
    if (!this.#pace.isDue(now)) return;
    const isMeasured = performance.now() - this.#measuredAt > MEASURE_EVERY_MILLISECONDS;
    if (isMeasured) this.#stage.finish();
    const start = performance.now();
    if (!this.#stage.draw(start)) return;
    this.#pace.drawn(start);
    if (!isMeasured) return;
    this.#stage.finish();
    this.#measuredAt = performance.now();
    this.#changePace(() => this.#pace.measured(this.#measuredAt - start));
  }
}
