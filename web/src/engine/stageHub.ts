import type { FromStage, FromStageWorker, ToStage, ToStageWorker } from '@jinx/stage';
import type { Thread } from './threads';

/** A scene's thread, as far as its client can tell. */
export interface SceneThread extends Thread {
  /** What it draws on already; null where its client gives it a canvas. */
  readonly canvas: HTMLCanvasElement | null;
}

interface OpenScene {
  readonly thread: SceneThread;
  readonly isMain: boolean;
}

/**
 * The one worker of the stage: every scene has a thread of its own as far as its client can tell, and they end with the
 * worker. The graphics are those of the main scene's canvas: another main scene needs another worker.
 */
export class StageHub {
  readonly #make: () => Thread;
  readonly #scenes = new Map<number, OpenScene>();
  #worker: Thread | null = null;
  #next = 1;
  /** The main scene while nobody has asked for it. */
  #prepared: SceneThread | null = null;

  constructor(make: () => Thread) {
    this.#make = make;
  }

  /** Begins with the graphics of a canvas before anybody opens the main scene. */
  prepare(canvas: HTMLCanvasElement): void {
    const thread = this.#open(true, canvas);
    // Nothing is told before it is asked but that it cannot draw: then the page begins anew, and hears of it.
    thread.onmessage = ({ data }: MessageEvent<FromStage>) => {
      if (data.kind === 'failed' || data.kind === 'lost') thread.terminate();
    };
    const offscreen = canvas.transferControlToOffscreen();
    thread.postMessage({ kind: 'start', canvas: offscreen, width: 0, height: 0 } satisfies ToStage, [offscreen]);
    this.#prepared = thread;
  }

  /** Opens a scene. At most one that is open is the main one, and it is opened before the others. */
  open(isMain: boolean): SceneThread {
    const prepared = isMain ? this.#prepared : null;
    if (isMain) this.#prepared = null;
    return prepared ?? this.#open(isMain, null);
  }
  #open(isMain: boolean, canvas: HTMLCanvasElement | null): SceneThread {
    const worker = (this.#worker ??= this.#begin());
    const scene = this.#next++;
    const thread: SceneThread = {
      canvas,
      onmessage: null,
      onerror: null,
      postMessage: (order, transfer) => {
        if (this.#scenes.has(scene)) this.#tell(worker, { kind: 'tell', scene, order: order as ToStage }, transfer);
      },
      terminate: () => {
        // Who closed it hears nothing of it any more.
        thread.onmessage = thread.onerror = null;
        this.#close(scene);
      },
    };
    this.#scenes.set(scene, { thread, isMain });
    this.#tell(worker, { kind: 'open', scene, isMain });
    return thread;
  }

  #tell(worker: Thread, message: ToStageWorker, transfer: Transferable[] = []): void {
    worker.postMessage(message, transfer);
  }

  #begin(): Thread {
    const worker = this.#make();
    worker.onmessage = ({ data }: MessageEvent<FromStageWorker>) => {
      const { thread } = this.#scenes.get(data.scene) ?? {};
      thread?.onmessage?.call(worker as Worker, new MessageEvent('message', { data: data.message }));
    };
    worker.onerror = (event) => this.#end(event);
    return worker;
  }

  #close(scene: number): void {
    const closed = this.#scenes.get(scene);
    if (!closed) return;
    this.#scenes.delete(scene);
    if (closed.isMain || this.#scenes.size === 0) return this.#end(ENDED);
    this.#tell(this.#worker!, { kind: 'close', scene });
  }

  /** The worker has ended, or ends: each scene hears of it, the main one first, since its canvas has to come first again. */
  #end(event: ErrorEvent): void {
    const worker = this.#worker;
    if (!worker) return;
    this.#worker = this.#prepared = null;
    worker.terminate();
    const ended = [...this.#scenes.values()].sort((a, b) => Number(b.isMain) - Number(a.isMain));
    this.#scenes.clear();
    // Not at once: whoever closed the main scene to open another does that before.
    queueMicrotask(() => ended.forEach(({ thread }) => thread.onerror?.call(worker as Worker, event)));
  }
}

const ENDED = { message: 'the stage was started again' } as ErrorEvent;
