import type { Player, PlayerOptions } from '../api.ts';
import { PagePlayer } from './pagePlayer.ts';
import { startThreads } from './threads.ts';
import code from '../workerCode.ts';

const MOST_PIXEL_RATIO = 2;

/**
 * Plays effects in a canvas. The canvas is the player's from now on: everything is computed and drawn in workers.
 * @throws an error with a sentence where this browser cannot.
 */
export function createPlayer(canvas: HTMLCanvasElement, options: PlayerOptions = {}): Player {
  if (typeof canvas.transferControlToOffscreen !== 'function')
    throw new Error(
      'This browser cannot draw in a worker (OffscreenCanvas): effects cannot be played in a canvas here.',
    );
  const { figures = true, pixelRatio = Math.min(MOST_PIXEL_RATIO, globalThis.devicePixelRatio || 1) } = options;
  const { end, helper } = startThreads(code);
  const player = new PagePlayer(canvas, end, helper !== null, options);
  const sizeOf = () => ({
    width: Math.max(1, Math.round(canvas.clientWidth * pixelRatio)),
    height: Math.max(1, Math.round(canvas.clientHeight * pixelRatio)),
  });
  const offscreen = canvas.transferControlToOffscreen();
  player.tell(
    { kind: 'start', canvas: offscreen, helper, figures, ...sizeOf() },
    helper ? [offscreen, helper] : [offscreen],
  );
  player.watch(sizeOf);
  return player;
}
