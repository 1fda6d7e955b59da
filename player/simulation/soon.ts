const channel = new MessageChannel();
const waiting: (() => void)[] = [];
channel.port1.onmessage = () => waiting.shift()!();
// In Node an open port would keep the process from ending.
(channel.port1 as MessagePort & { unref?(): void }).unref?.();

/**
 * Calls back in a task of its own, so that messages are heard in between. A timer without a time would do the same, but
 * browsers let timers that set one another wait for four milliseconds each.
 */
export function soon(act: () => void): void {
  waiting.push(act);
  channel.port2.postMessage(null);
}
