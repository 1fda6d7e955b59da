import type { Thread } from '../threads';

/** A worker that only notes what it is told. */
export class Told implements Thread {
  readonly orders: { kind: string; [field: string]: unknown }[] = [];
  isEnded = false;
  onmessage: Thread['onmessage'] = null;
  onerror: Thread['onerror'] = null;
  postMessage(order: unknown): void {
    this.orders.push(order as Told['orders'][number]);
  }
  terminate(): void {
    this.isEnded = true;
  }
  say(data: unknown): void {
    this.onmessage!.call(this as never, { data } as MessageEvent);
  }
  fail(reason: string): void {
    this.onerror!.call(this as never, { message: reason } as ErrorEvent);
  }
  kinds(): string[] {
    return this.orders.map(({ kind, order }) => (order as { kind: string } | undefined)?.kind ?? kind);
  }
}
