import code from 'jinx:worker';
import type { Player, PlayerOptions } from '../api.ts';
import { PagePlayer, type WorkerEnd } from './pagePlayer.ts';

const MOST_PIXEL_RATIO = 2;

function newWorker(): Worker {
  const address = URL.createObjectURL(new Blob([code], { type: 'text/javascript' }));
  const worker = new Worker(address);
  // It has fetched its code by the time it says anything.
  worker.addEventListener('message', () => URL.revokeObjectURL(address), { once: true });
  return worker;
}

/** A second thread that computes in the same memory, where the page may share memory. */
function newHelper(): { worker: Worker; port: MessagePort } | null {
  if (!globalThis.crossOriginIsolated) return null;
  const { port1, port2 } = new MessageChannel();
  const worker = newWorker();
  worker.postMessage({ kind: 'help', port: port1 }, [port1]);
  return { worker, port: port2 };
}

/**
 * Plays effects in a canvas. The canvas is the player's from now on: everything is computed and drawn in workers.
 * @throws an error with a sentence where this browser cannot.
 */
export function createPlayer(canvas: HTMLCanvasElement, options: PlayerOptions = {}): Player {
  if (typeof canvas.transferControlToOffscreen !== 'function')
    throw new Error(
      'This browser cannot draw in a worker (OffscreenCanvas): effects cannot be played in a canvas here.',
    );
  const { pixelRatio = Math.min(MOST_PIXEL_RATIO, globalThis.devicePixelRatio || 1) } = options;
  const helper = newHelper();
  const worker = newWorker();
  const end: WorkerEnd = {
    worker,
    close: () => {
      worker.terminate();
      helper?.worker.terminate();
    },
  };
  const player = new PagePlayer(canvas, end, helper !== null, options);
  const sizeOf = () => ({
    width: Math.max(1, Math.round(canvas.clientWidth * pixelRatio)),
    height: Math.max(1, Math.round(canvas.clientHeight * pixelRatio)),
  });
  const offscreen = canvas.transferControlToOffscreen();
  const port = helper?.port ?? null;
  const { figures = true } = options;
  player.tell(
    { kind: 'start', canvas: offscreen, helper: port, figures, ...sizeOf() },
    port ? [offscreen, port] : [offscreen],
  );
  player.watch(sizeOf);
  return player;
}
