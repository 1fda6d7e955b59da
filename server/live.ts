import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import { z } from 'zod';
import { WebSocketServer, type WebSocket } from 'ws';

/** Somebody who has an effect open: a window of theirs, and their name where people sign in. */
export interface Present {
  readonly window: string;
  readonly name: string;
}

/** What is told to whoever has an effect open. */
export type Told =
  | { readonly kind: 'people'; readonly others: readonly Present[] }
  | { readonly kind: 'edit'; readonly revision: number };

interface Watcher extends Present {
  readonly socket: WebSocket;
  isAlive: boolean;
}

const ADDRESS = /^\/api\/effects\/([0-9a-f-]{36})\/live$/;
const HEARTBEAT_MILLISECONDS = 20_000;
/** Nothing is said by a window: what it says is not heard out. */
const MOST_HEARD = 1024;

/** Decides whether somebody may watch an effect. Returns their name, or null where they may not. */
export type Admit = (request: IncomingMessage, effectId: string) => Promise<string | null>;

/** Who has which effect open, and the news for them. */
export class Live {
  readonly #rooms = new Map<string, Set<Watcher>>();
  readonly #sockets = new WebSocketServer({ noServer: true, maxPayload: MOST_HEARD });
  readonly #heartbeat = setInterval(() => this.#cutDead(), HEARTBEAT_MILLISECONDS).unref();

  /** Answers windows that ask to be told, on a server's own port. */
  attach(server: Server, admit: Admit): void {
    server.on('upgrade', (request, socket: Duplex, head) => {
      const { pathname, searchParams } = new URL(request.url ?? '/', 'http://jinx');
      const effectId = ADDRESS.exec(pathname)?.[1];
      const window = z.uuid().safeParse(searchParams.get('window'));
      const refuse = () => void socket.end('HTTP/1.1 403 Forbidden\r\nConnection: close\r\n\r\n');
      socket.on('error', () => socket.destroy());
      if (!effectId || !window.success) return refuse();
      admit(request, effectId).then(
        (name) =>
          name === null
            ? refuse()
            : this.#sockets.handleUpgrade(request, socket, head, (ws) =>
                this.#enter(effectId, { window: window.data, name, socket: ws, isAlive: true }),
              ),
        refuse,
      );
    });
  }

  #enter(effectId: string, watcher: Watcher): void {
    const room = this.#rooms.get(effectId) ?? new Set();
    this.#rooms.set(effectId, room.add(watcher));
    watcher.socket.on('pong', () => (watcher.isAlive = true));
    watcher.socket.on('error', () => watcher.socket.terminate());
    watcher.socket.on('close', () => {
      room.delete(watcher);
      if (room.size === 0) this.#rooms.delete(effectId);
      this.#tellPeople(room);
    });
    this.#tellPeople(room);
  }

  #tellPeople(room: ReadonlySet<Watcher>): void {
    for (const watcher of room) {
      const others = [...room].filter((other) => other.window !== watcher.window);
      send(watcher, { kind: 'people', others: others.map(({ window, name }) => ({ window, name })) });
    }
  }

  /** Tells whoever has an effect open that it was written over. */
  tellEdit(effectId: string, revision: number): void {
    for (const watcher of this.#rooms.get(effectId) ?? []) send(watcher, { kind: 'edit', revision });
  }

  #cutDead(): void {
    for (const room of this.#rooms.values())
      for (const watcher of room) {
        if (!watcher.isAlive) watcher.socket.terminate();
        watcher.isAlive = false;
        watcher.socket.ping();
      }
  }

  close(): void {
    clearInterval(this.#heartbeat);
    for (const room of this.#rooms.values()) for (const { socket } of room) socket.terminate();
    this.#sockets.close();
  }
}

function send({ socket }: Watcher, told: Told): void {
  if (socket.readyState === socket.OPEN) socket.send(JSON.stringify(told));
}
