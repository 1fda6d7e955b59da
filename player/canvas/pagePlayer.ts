import type { CameraView, EffectInfo, Player, PlayerOptions, Surround } from '../api.ts';
import { orbit, turnedView } from './orbit.ts';
import { FIRST_VIEW } from '../scene/firstView.ts';
import { PlayerEnd, type WorkerEnd } from './playerEnd.ts';

/** A player that draws on a canvas of the page. */
export class PagePlayer extends PlayerEnd implements Player {
  readonly #canvas: HTMLCanvasElement;
  readonly #options: PlayerOptions;
  readonly #ending: (() => void)[] = [];
  #isPaused = false;
  #isOffScreen = false;
  #camera: CameraView = FIRST_VIEW;
  #hasCamera = false;

  constructor(canvas: HTMLCanvasElement, end: WorkerEnd, isShared: boolean, options: PlayerOptions) {
    super(end, isShared);
    [this.#canvas, this.#options] = [canvas, options];
  }

  /** Follows the canvas: its size, whether it is seen, and what moves the camera. */
  watch(sizeOf: () => { width: number; height: number }): void {
    const sizes = new ResizeObserver(() => this.tell({ kind: 'size', ...sizeOf() }));
    sizes.observe(this.#canvas);
    this.#ending.push(() => sizes.disconnect());
    const { pausesOffScreen = true, orbits = true, surround, quality } = this.#options;
    if (pausesOffScreen) {
      const sight = new IntersectionObserver((entries) => {
        this.#isOffScreen = !entries.at(-1)!.isIntersecting;
        this.#tellPause();
      });
      sight.observe(this.#canvas);
      this.#ending.push(() => sight.disconnect());
    }
    if (orbits) this.#ending.push(orbit(this.#canvas, (...by) => this.setCamera(turnedView(this.#camera, ...by))));
    if (surround) this.setSurround(surround);
    if (quality) this.setQuality(quality);
    this.tell({ kind: 'camera', camera: this.#camera });
  }

  /** It opens as it was made to be seen, unless the page has chosen a camera. */
  protected override begun({ camera }: EffectInfo): void {
    if (!this.#hasCamera && camera) this.setCamera(camera);
  }

  pause(): void {
    this.#isPaused = true;
    this.#tellPause();
  }
  resume(): void {
    this.#isPaused = false;
    this.#tellPause();
  }
  #tellPause(): void {
    this.tell({ kind: 'pause', isPaused: this.#isPaused || this.#isOffScreen });
  }
  setSurround(surround: Surround): void {
    this.tell({ kind: 'surround', surround });
  }
  setCamera(camera: CameraView): void {
    [this.#camera, this.#hasCamera] = [camera, true];
    this.tell({ kind: 'camera', camera });
  }
  async pixels(width: number, height: number): Promise<Uint8ClampedArray> {
    return (await this.ask<'pixels'>((id) => ({ kind: 'pixels', id, width, height }))).rgba;
  }
  /** Milliseconds for each of so many whole drawings of the present picture. */
  async timeDrawing(times: number): Promise<number[]> {
    return (await this.ask<'time'>((id) => ({ kind: 'time', id, times }))).milliseconds;
  }

  override dispose(): void {
    for (const end of this.#ending) end();
    super.dispose();
  }
}
