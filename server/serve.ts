import { createServer, type IncomingMessage, type Server } from 'node:http';
import type { Duplex } from 'node:stream';
import type { Logger } from 'pino';
import { Connections, endSoon } from './access/connections.ts';
import { costlyLimit } from './access/costly.ts';
import { networkOf } from './access/network.ts';
import { isOwnRequest } from './access/own.ts';
import { Slots } from './access/slots.ts';
import { makeApp } from './app.ts';
import type { Database } from './database.ts';
import { Followers } from './effects/index.ts';
import type { House } from './house.ts';
import { Incoming } from './incoming.ts';
import { Live, type Watching } from './live.ts';
import { Attempts, personOf, roleIn } from './people/index.ts';
import { Quota } from './quota.ts';
import { announce } from './routes/announce.ts';
import { COOKIE } from './routes/route.ts';
import type { Settings } from './settings.ts';
import { Workers } from './workers/workers.ts';

/** A server that answers, and how it is ended. */
export interface Serving {
  readonly server: Server;
  /** Takes no more, finishes what it has begun, and is gone. */
  readonly stop: () => Promise<void>;
}

/** What is not answered by then is cut off, so that a stop ends. */
const LAST_MILLISECONDS = 10_000;
/** Time for a request's head, and for all of it: each route's own limit for its body is shorter. */
const TIMES = {
  headersTimeout: 8000,
  requestTimeout: 300_000,
  keepAliveTimeout: 5000,
  connectionsCheckingInterval: 1000,
};

/** Assets that are read at one time (a browser asks for six), and parcels that are made; others wait so long for theirs. */
const [READERS, EXPORTS] = [
  { all: 12, perOwner: 6 },
  { all: 2, perOwner: 1 },
];
const SLOT_MILLISECONDS = 20_000;

/** The address a request came from: before a proxy, what the nearest proxy says. */
function addressOf({ headers, socket }: IncomingMessage, { isBehindProxy }: Settings): string | undefined {
  const forwarded = isBehindProxy
    ? String(headers['x-forwarded-for'] ?? '')
        .split(',')
        .pop()
        ?.trim()
    : '';
  return forwarded || socket.remoteAddress;
}

/** Finds who wants to watch an effect; null where they may not. */
async function admit(
  { settings, database }: House,
  request: IncomingMessage,
  effectId: string,
): Promise<Watching | null> {
  if (!settings.hasSignIn)
    return { name: '', owner: networkOf(addressOf(request, settings)), mayStill: () => Promise.resolve(true) };
  const token = new RegExp(`(?:^|; )${COOKIE}=([^;]+)`).exec(request.headers.cookie ?? '')?.[1];
  const whoMay = async () => {
    const person = await personOf(database, token);
    const { rows } = await database.query<{ project: string }>(
      'select project_id as project from effects where id = $1',
      [effectId],
    );
    const role = person && rows[0] ? await roleIn(database, rows[0].project, person) : null;
    return role ? person : null;
  };
  const person = await whoMay();
  return person && { name: person.name, owner: person.id, mayStill: async () => (await whoMay()) !== null };
}

/** Answers what is no request, as far as that can be. */
function answerBroken(error: NodeJS.ErrnoException, socket: Duplex): void {
  if (error.code === 'ECONNRESET' || !socket.writable) return void socket.destroy();
  const status =
    error.code === 'HPE_HEADER_OVERFLOW'
      ? '431 Request Header Fields Too Large'
      : error.code === 'ERR_HTTP_REQUEST_TIMEOUT'
        ? '408 Request Timeout'
        : '400 Bad Request';
  socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`);
  endSoon(socket);
}

/** Serves Jinx; port 0 takes a free one. */
export async function serve(database: Database, log: Logger, settings: Settings): Promise<Serving> {
  const live = new Live();
  const workers = new Workers(log);
  const incoming = new Incoming(settings.incomingFolder);
  incoming.clear();
  const followers = new Followers(database, log, {
    written: (written) => announce({ live, followers }, written),
    progress: (effectId, following) => live.tellFollowing(effectId, following),
  });
  const house: House = {
    settings,
    database,
    log,
    live,
    workers,
    incoming,
    followers,
    quota: new Quota(settings),
    reading: new Slots(READERS.all, READERS.perOwner, SLOT_MILLISECONDS),
    exporting: new Slots(EXPORTS.all, EXPORTS.perOwner, SLOT_MILLISECONDS),
    costly: costlyLimit(settings.costlyPerMinute),
    attempts: new Attempts(),
  };
  const connections = new Connections(settings);
  const server = createServer(TIMES, connections.guard(makeApp(house).callback()));
  connections.attach(server);
  server.on('clientError', answerBroken);
  live.attach(
    server,
    (request, socket) => !connections.isRefused(socket) && isOwnRequest(request.headers, false, settings.names),
    (request, effectId) => admit(house, request, effectId),
  );
  await new Promise<void>((ready, fail) => {
    server.once('error', fail);
    server.listen(settings.port, settings.host, ready);
  });
  followers.wake();
  const stop = async () => {
    live.close();
    await followers.stop();
    const closed = new Promise((done) => server.close(done));
    server.closeIdleConnections();
    const last = setTimeout(() => server.closeAllConnections(), LAST_MILLISECONDS);
    await closed;
    clearTimeout(last);
    await workers.close();
  };
  return { server, stop };
}
