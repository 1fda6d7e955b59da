import { connect, type Socket } from 'node:net';

/** What came back on a connection, and whether the other side ended it. */
export interface Exchange {
  readonly text: string;
  readonly isClosed: boolean;
}

/** A connection that does only what it is told: it never closes its own half by itself. */
export class RawSocket {
  readonly socket: Socket;
  #text = '';
  #isClosed = false;

  /** @param address of this side; any of the loopback network. */
  constructor(port: number, address = '127.0.0.1') {
    this.socket = connect({ port, host: '127.0.0.1', localAddress: address, allowHalfOpen: true });
    this.socket.on('data', (part: Buffer) => (this.#text += part.toString('latin1')));
    this.socket.on('error', () => undefined);
    for (const event of ['end', 'close']) this.socket.on(event, () => (this.#isClosed = true));
  }

  get text(): string {
    return this.#text;
  }
  get isClosed(): boolean {
    return this.#isClosed;
  }

  /** Waits until it holds, or the time is over. */
  async until(holds: (exchange: Exchange) => boolean, milliseconds = 20_000): Promise<Exchange> {
    for (const last = performance.now() + milliseconds; performance.now() < last;) {
      if (holds(this)) break;
      await new Promise((later) => setTimeout(later, 10));
    }
    return { text: this.#text, isClosed: this.#isClosed };
  }

  send(text: string | Uint8Array): this {
    this.socket.write(text);
    return this;
  }
  end(): void {
    this.socket.destroy();
  }
}

export const upgrade = (path: string, headers: Readonly<Record<string, string>> = {}): string =>
  [
    `GET ${path} HTTP/1.1`,
    ...Object.entries({
      Host: 'localhost',
      Connection: 'Upgrade',
      Upgrade: 'websocket',
      'Sec-WebSocket-Version': '13',
      'Sec-WebSocket-Key': 'AAAAAAAAAAAAAAAAAAAAAA==',
      ...headers,
    }).map(([name, value]) => `${name}: ${value}`),
    '\r\n',
  ].join('\r\n');
