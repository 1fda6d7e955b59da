import type { FromStage, ToStage } from './protocol.ts';
import { Stage } from './stage.ts';

// The stage's worker: draws on the page's canvas, and can be kept waiting by nothing the page does.
declare const self: DedicatedWorkerGlobalScope;

const REPORT_EVERY_MILLISECONDS = 400;

let stage: Stage | null = null;
const waiting: ToStage[] = [];
let reportedAt = 0;

const tell = (message: FromStage, transfer: Transferable[] = []) => self.postMessage(message, transfer);

function loop(): void {
  const now = performance.now();
  const drawn = stage!.draw(now);
  if (drawn && now - reportedAt > REPORT_EVERY_MILLISECONDS) {
    reportedAt = now;
    stage!.finish();
    tell({ kind: 'drawn', ...drawn, drawMilliseconds: performance.now() - now });
  }
  self.requestAnimationFrame(loop);
}

function take(order: ToStage): void {
  if (order.kind === 'start') {
    try {
      stage = new Stage(order.canvas);
    } catch {
      tell({
        kind: 'failed',
        sentence:
          'The stage could not start: this browser gave no WebGL 2. Turn on hardware or software drawing and reload.',
      });
      return;
    }
    stage.take({ kind: 'size', width: order.width, height: order.height });
    waiting.splice(0).forEach(take);
    loop();
  } else if (!stage) waiting.push(order);
  else if (order.kind === 'pixels') {
    const rgba = stage.pixels(order.width, order.height, performance.now());
    tell({ kind: 'pixels', id: order.id, width: order.width, height: order.height, rgba }, [
      rgba.buffer as ArrayBuffer,
    ]);
  } else if (order.kind === 'time') {
    const milliseconds = Array.from({ length: order.times }, () => {
      const start = performance.now();
      stage!.draw(start, true);
      stage!.finish();
      return performance.now() - start;
    });
    tell({ kind: 'time', id: order.id, milliseconds });
  } else stage.take(order);
}

self.onmessage = ({ data }: MessageEvent<ToStage>) => take(data);
