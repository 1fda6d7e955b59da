import type { View } from '@jinx/player/scene';
import type { FromStage, Guide, ParticlePicturesAsked, StageView, ToStage } from '@jinx/stage';
import { Calls } from './calls';
import type { Instant } from './instantClient';
import type { SceneThread } from './stageHub';
import { reasonOf } from './threads';

/** Orders that are done with once they are carried out: all others say how the stage is from then on. */
const PASSING: ReadonlySet<ToStage['kind']> = new Set<ToStage['kind']>([
  'start',
  // The simulation tells a new stage of them itself: the buffer has to begin anew with its reader.
  'frames',
  'instant',
  'forgetInstants',
  'pixels',
  'picture',
  'particlePictures',
  'time',
  'pixel',
  'pixelSteps',
  'seenAt',
  'extent',
]);

interface Heard {
  message(message: FromStage): void;
  /** The worker ended; it has to be started again with another canvas. */
  failed(reason: string): void;
}

/** The stage's worker: what is asked of it, and all it was told that still holds, so that another can take its place. */
export class StageClient {
  readonly #make: () => SceneThread;
  readonly #heard: Heard;
  readonly #standing = new Map<ToStage['kind'], ToStage>();
  #worker: SceneThread;
  /** Counts what was told that changes the picture. */
  changes = 0;
  readonly #calls = new Calls<ToStage, FromStage>((order, transfer) => this.send(order, transfer));
  #guides: [guides: Guide[], isShown: boolean] = [[], false];

  constructor(make: () => SceneThread, heard: Heard) {
    this.#make = make;
    this.#heard = heard;
    this.#worker = this.#begin();
  }

  #begin(): SceneThread {
    const worker = this.#make();
    worker.onmessage = ({ data }: MessageEvent<FromStage>) => {
      if (!this.#calls.hear(data)) this.#heard.message(data);
    };
    worker.onerror = (event) => {
      this.#calls.abandon('The stage stopped before it could answer.');
      this.#heard.failed(reasonOf(event));
    };
    return worker;
  }

  send(order: ToStage, transfer: Transferable[] = []): void {
    if (!PASSING.has(order.kind)) {
      // Told again in the order in which it was told last.
      this.#standing.delete(order.kind);
      this.#standing.set(order.kind, order);
      this.changes++;
    }
    this.#worker.postMessage(order, transfer);
  }

  /** Another worker, told all that still holds. It draws once it has a canvas. */
  restart(): void {
    this.#worker.terminate();
    this.#calls.abandon('The stage was started again before it could answer.');
    this.#worker = this.#begin();
    for (const order of this.#standing.values()) this.#worker.postMessage(order, []);
  }

  /** What it draws on already; null where it has to be given a canvas. */
  get canvas(): HTMLCanvasElement | null {
    return this.#worker.canvas;
  }
  /** Draws on a canvas from now on; without one, only the pictures that are asked for. */
  start(canvas: HTMLCanvasElement | null, width: number, height: number): void {
    const offscreen = canvas?.transferControlToOffscreen() ?? null;
    this.send({ kind: 'start', canvas: offscreen, width, height }, offscreen ? [offscreen] : []);
  }
  size(width: number, height: number): void {
    this.send({ kind: 'size', width, height });
  }
  view(view: View): void {
    this.send({ kind: 'camera', ...view });
  }
  /** Shows the picture, or something in its place. */
  show(view: StageView): void {
    this.send({ kind: 'view', view });
  }
  /** Asks to hear of some of a frame's matrices, as they are drawn. */
  track(matrices: number[]): void {
    this.send({ kind: 'track', matrices });
  }
  guides(guides: Guide[], isShown: boolean): void {
    this.#guides = [guides, isShown];
    this.send({ kind: 'guides', guides, isShown });
  }
  /** Lights what has an age in the layers of those salts, and dims the rest; none ends that. */
  lightAge(salts: number[], age: number): void {
    this.send({ kind: 'lightAge', salts, age });
  }

  /** Dims all layers but those of some salts; none ends that. */
  dimOthers(salts: number[]): void {
    this.send({ kind: 'dimOthers', salts });
  }

  pixels(width: number, height: number) {
    return this.#calls.ask('pixels', { width, height });
  }
  /** A picture of the present frame, or of another instant. */
  picture(width: number, height: number, instant: Instant | null = null) {
    return this.#calls.ask('picture', { width, height, instant }, instant ? [instant.buffer] : []);
  }
  /** The picture without guides, which come back at once. */
  barePicture(width: number, height: number) {
    const [guides, isShown] = this.#guides;
    this.guides([], false);
    const bare = this.picture(width, height);
    this.guides(guides, isShown);
    return bare;
  }
  /** Particles of a layer with some numbers, side by side; null where the stage does not show it, or has no such step. */
  particlePictures(asked: ParticlePicturesAsked) {
    return this.#calls.ask('particlePictures', asked);
  }
  /** What made a pixel of the stage, 0 to 1 from its left and its top; null while nothing is drawn. */
  pixel(x: number, y: number) {
    return this.#calls.ask('pixel', { x, y });
  }
  /** The salts of the layers seen at such a place or close to it, from the one that is seen most. */
  seenAt(x: number, y: number) {
    return this.#calls.ask('seenAt', { x, y });
  }
  /** How far the particles of the layers of those salts reach, as they are drawn. */
  extent(salts: number[]) {
    return this.#calls.ask('extent', { salts });
  }
  /** What the layer of that salt gives to it after each step of its look. */
  pixelSteps(x: number, y: number, salt: number) {
    return this.#calls.ask('pixelSteps', { x, y, salt });
  }
  timeDrawing(times: number) {
    return this.#calls.ask('time', { times });
  }

  stop(): void {
    this.#calls.close();
    this.#worker.terminate();
  }
}
