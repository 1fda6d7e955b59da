import type { IncomingMessage, Server, ServerResponse } from 'node:http';
import type { Socket } from 'node:net';
import type { Duplex } from 'node:stream';
import type { Settings } from '../settings.ts';
import { networkOf } from './network.ts';

/** A connection that is refused is told so if it asks for something by then, and cut. */
const REFUSED_MILLISECONDS = 2000;
/** Refused ones that may wait for that beside the others. */
const MOST_REFUSED = 32;

/** Ends a connection for good a moment after it was answered, whatever its other half does. */
export function endSoon(socket: Duplex): void {
  const timer = setTimeout(() => socket.destroy(), REFUSED_MILLISECONDS);
  timer.unref();
  socket.once('close', () => clearTimeout(timer));
}

/** Keeps the number of connections to a server within limits, in all and from one address. */
export class Connections {
  readonly #settings: Settings;
  readonly #perNetwork = new Map<string, number>();
  readonly #refused = new Set<Duplex>();
  #count = 0;

  constructor(settings: Settings) {
    this.#settings = settings;
  }

  attach(server: Server): void {
    server.on('connection', (socket: Socket) => this.#enter(socket));
  }

  #enter(socket: Socket): void {
    const { connections, connectionsPerAddress, isBehindProxy } = this.#settings;
    const network = networkOf(socket.remoteAddress);
    const own = (this.#perNetwork.get(network) ?? 0) + 1;
    // All connections that come through a proxy have its address.
    const isOver = this.#count >= connections || (!isBehindProxy && own > connectionsPerAddress);
    if (!isOver) {
      this.#count++;
      this.#perNetwork.set(network, own);
      socket.once('close', () => {
        this.#count--;
        const left = (this.#perNetwork.get(network) ?? 1) - 1;
        if (left > 0) this.#perNetwork.set(network, left);
        else this.#perNetwork.delete(network);
      });
      return;
    }
    if (this.#refused.size >= MOST_REFUSED) return void socket.destroy();
    this.#refused.add(socket);
    socket.once('close', () => this.#refused.delete(socket));
    endSoon(socket);
  }

  /** Whether a connection is one too many. */
  isRefused(socket: Duplex): boolean {
    return this.#refused.has(socket);
  }

  /** Answers requests on connections that are too many in a sentence, and lets the others through. */
  guard(answer: (request: IncomingMessage, response: ServerResponse) => unknown) {
    return (request: IncomingMessage, response: ServerResponse): void => {
      if (!this.#refused.has(request.socket)) return void answer(request, response);
      const { connections, connectionsPerAddress } = this.#settings;
      const sentence = `Too many connections: ${connectionsPerAddress} from one address and ${connections} in all are served at once. Close some pages, and try again.`;
      response.writeHead(503, { 'Content-Type': 'application/json', Connection: 'close', 'Retry-After': '5' });
      response.end(JSON.stringify({ code: 'connections', sentence }));
    };
  }
}
