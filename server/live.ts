import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import { z } from 'zod';
import { WebSocketServer, type WebSocket } from 'ws';
import { endSoon } from './access/connections.ts';
import type { Following, News, Present } from '@jinx/core/answers';

/** Somebody who may watch an effect. */
export interface Watching {
  readonly name: string;
  /** Whose sockets are counted together: a person, or an address where nobody signs in. */
  readonly owner: string;
  /** Asks again whether they may. */
  readonly mayStill: () => Promise<boolean>;
}

/** Finds who wants to watch an effect. Returns null where they may not. */
export type Admit = (request: IncomingMessage, effectId: string) => Promise<Watching | null>;

interface Watcher extends Present, Watching {
  readonly socket: WebSocket;
  isAlive: boolean;
}

/** Those who have one effect open, and the news that are sent to them together a moment later. */
interface Room {
  readonly watchers: Set<Watcher>;
  readonly news: Map<News['kind'], () => News>;
  timer: NodeJS.Timeout | null;
  /** When news were last sent. */
  sentAt: number;
}

const ADDRESS = /^\/api\/effects\/([0-9a-f-]{36})\/live$/;
const HEARTBEAT_MILLISECONDS = 20_000;
/** News of one kind within this time are sent as one. */
const COALESCE_MILLISECONDS = 100;
/** A window says nothing: longer messages of it end its socket. */
const MOST_HEARD = 1024;
const MOST_PER_OWNER = 16;
/** Others who are named to a window. */
const MOST_NAMED = 32;
/** A window that does not read what it is sent is cut off when this many bytes wait for it. */
const MOST_BUFFERED = 64 * 1024;
/** The code by which a socket is closed whose owner may no longer watch. */
const FORBIDDEN = 4403;

/** The path and the query of a request, or null where its address is none. */
function addressOf(request: IncomingMessage): { path: string; query: URLSearchParams } | null {
  const { url = '' } = request;
  if (!url.startsWith('/') || url.startsWith('//')) return null;
  const [path = '', query = ''] = url.split('?', 2);
  return { path, query: new URLSearchParams(query) };
}

/** Sends news to a window; one that does not read what it is sent is cut off. */
export function deliver(
  socket: Pick<WebSocket, 'bufferedAmount' | 'readyState' | 'OPEN' | 'send' | 'terminate'>,
  news: readonly News[],
): void {
  if (socket.bufferedAmount > MOST_BUFFERED) return socket.terminate();
  if (socket.readyState === socket.OPEN) for (const told of news) socket.send(JSON.stringify(told));
}

/** Who has which effect open, and the news for them. */
export class Live {
  readonly #rooms = new Map<string, Room>();
  readonly #perOwner = new Map<string, number>();
  readonly #sockets = new WebSocketServer({ noServer: true, maxPayload: MOST_HEARD });
  readonly #heartbeat: NodeJS.Timeout;
  #checking: Promise<void> = Promise.resolve();
  #nextCheck: Promise<void> | null = null;

  constructor(heartbeatMilliseconds = HEARTBEAT_MILLISECONDS) {
    this.#heartbeat = setInterval(() => this.#beat(), heartbeatMilliseconds).unref();
  }

  /**
   * Answers windows that ask to be told, on a server's own port.
   * @param isOwn whether a request comes to Jinx by its own name and from its own pages: asked before anything else.
   */
  attach(server: Server, isOwn: (request: IncomingMessage, socket: Duplex) => boolean, admit: Admit): void {
    server.on('upgrade', (request, socket: Duplex, head) => {
      socket.on('error', () => socket.destroy());
      const refuse = (status = '403 Forbidden') => {
        socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`);
        endSoon(socket);
      };
      if (!isOwn(request, socket)) return refuse();
      const address = addressOf(request);
      const effectId = address && ADDRESS.exec(address.path)?.[1];
      const window = z.uuid().safeParse(address?.query.get('window'));
      if (!effectId || !window.success) return refuse('404 Not Found');
      admit(request, effectId).then(
        (watching) => {
          if (!watching) return refuse();
          if ((this.#perOwner.get(watching.owner) ?? 0) >= MOST_PER_OWNER) return refuse('429 Too Many Requests');
          this.#sockets.handleUpgrade(request, socket, head, (ws) =>
            this.#enter(effectId, { ...watching, window: window.data, socket: ws, isAlive: true }),
          );
        },
        () => refuse('503 Service Unavailable'),
      );
    });
  }

  #enter(effectId: string, watcher: Watcher): void {
    const room = this.#rooms.get(effectId) ?? { watchers: new Set(), news: new Map(), timer: null, sentAt: 0 };
    this.#rooms.set(effectId, room);
    room.watchers.add(watcher);
    this.#count(watcher.owner, 1);
    watcher.socket.on('pong', () => (watcher.isAlive = true));
    watcher.socket.on('error', () => watcher.socket.terminate());
    watcher.socket.on('close', () => {
      room.watchers.delete(watcher);
      this.#count(watcher.owner, -1);
      if (room.watchers.size > 0) return this.#announcePeople(room);
      if (room.timer) clearTimeout(room.timer);
      this.#rooms.delete(effectId);
    });
    this.#announcePeople(room);
  }

  #count(owner: string, by: number): void {
    const count = (this.#perOwner.get(owner) ?? 0) + by;
    if (count > 0) this.#perOwner.set(owner, count);
    else this.#perOwner.delete(owner);
  }

  #announcePeople(room: Room): void {
    this.#announce(room, 'people', () => ({ kind: 'people', others: [] }));
  }

  /** Tells those who have an effect open that it was written over. */
  tellEdit(effectId: string, revision: number): void {
    const room = this.#rooms.get(effectId);
    if (room) this.#announce(room, 'edit', () => ({ kind: 'edit', revision }));
  }

  /** Tells those who have an effect open how far those that follow it have come. */
  tellFollowing(effectId: string, following: Following): void {
    const room = this.#rooms.get(effectId);
    if (room) this.#announce(room, 'following', () => ({ kind: 'following', ...following }));
  }

  /** The first news are sent at once; what comes within a moment after is sent together. */
  #announce(room: Room, kind: News['kind'], told: () => News): void {
    room.news.set(kind, told);
    if (room.timer) return;
    const wait = Math.max(0, room.sentAt + COALESCE_MILLISECONDS - performance.now());
    room.timer = setTimeout(() => this.#send(room), wait);
  }

  #send(room: Room): void {
    room.timer = null;
    room.sentAt = performance.now();
    const news = [...room.news.values()].map((told) => told());
    room.news.clear();
    const present = [...room.watchers].slice(0, MOST_NAMED + 1).map(({ window, name }) => ({ window, name }));
    for (const { socket, window } of room.watchers) {
      const others = present.filter((one) => one.window !== window).slice(0, MOST_NAMED);
      deliver(
        socket,
        news.map((told) => (told.kind === 'people' ? { ...told, others } : told)),
      );
    }
  }

  #beat(): void {
    for (const { watchers } of this.#rooms.values())
      for (const watcher of watchers) {
        if (!watcher.isAlive) watcher.socket.terminate();
        watcher.isAlive = false;
        watcher.socket.ping();
      }
    void this.checkRights();
  }

  /** Closes the sockets of all who may no longer watch: signed out, with another password, or taken out of a project. */
  checkRights(): Promise<void> {
    // However often it is asked for, one check runs, and one more after it.
    this.#nextCheck ??= this.#checking.then(() => {
      this.#nextCheck = null;
      return (this.#checking = this.#checkAll());
    });
    return this.#nextCheck;
  }

  async #checkAll(): Promise<void> {
    for (const { watchers } of [...this.#rooms.values()])
      for (const watcher of [...watchers]) {
        const may = await watcher.mayStill().catch(() => true);
        if (!may) watcher.socket.close(FORBIDDEN);
      }
  }

  close(): void {
    clearInterval(this.#heartbeat);
    for (const { watchers, timer } of this.#rooms.values()) {
      if (timer) clearTimeout(timer);
      for (const { socket } of watchers) socket.terminate();
    }
    this.#sockets.close();
  }
}
