import { InstantQueue } from './instantQueue.ts';
import type { ToInstants } from './protocol.ts';

// Computes instants of effects for pictures of them, beside whatever plays.
declare const self: DedicatedWorkerGlobalScope;

const queue = new InstantQueue((message, transfer = []) => self.postMessage(message, transfer));
self.onmessage = ({ data }: MessageEvent<ToInstants>) => queue.take(data);
