import { createServer, type Server } from 'node:http';
import type { Logger } from 'pino';
import { Buckets } from './access/buckets.ts';
import { mustBeOwn } from './access/own.ts';
import { makeApp } from './app.ts';
import type { Database } from './database.ts';
import { Importer } from './importing/importer.ts';
import type { House } from './house.ts';
import { Live } from './live.ts';
import { Attempts, personOf, roleIn } from './people/index.ts';
import { COOKIE } from './routes/route.ts';
import type { Settings } from './settings.ts';

/** A server that answers, and how it is ended. */
export interface Serving {
  readonly server: Server;
  /** Takes no more, finishes what it has begun, and is gone. */
  readonly stop: () => Promise<void>;
}

/** What is not answered by then is cut off, so that a stop ends. */
const LAST_MILLISECONDS = 10_000;

/** The name of somebody who wants to watch an effect; null where they may not. */
async function watcherName(
  { settings, database }: House,
  cookies: string | undefined,
  effectId: string,
): Promise<string | null> {
  if (!settings.hasSignIn) return '';
  const token = new RegExp(`(?:^|; )${COOKIE}=([^;]+)`).exec(cookies ?? '')?.[1];
  const person = await personOf(database, token);
  const { rows } = await database.query<{ project: string }>(
    'select project_id as project from effects where id = $1',
    [effectId],
  );
  const role = person && rows[0] ? await roleIn(database, rows[0].project, person) : null;
  return role ? person!.name : null;
}

/** Serves Jinx; port 0 takes a free one. */
export async function serve(database: Database, log: Logger, settings: Settings): Promise<Serving> {
  const live = new Live();
  const importer = new Importer(log);
  const costly = new Buckets(settings.costlyPerMinute);
  const house: House = { settings, database, log, live, importer, costly, attempts: new Attempts() };
  const app = makeApp(house);
  const server = createServer(app.callback());
  // A request has this long to arrive; a large file over a slow line needs some.
  server.requestTimeout = 120_000;
  server.headersTimeout = 15_000;
  live.attach(server, async (request, effectId) => {
    mustBeOwn(request.headers, false, settings.names);
    return watcherName(house, request.headers.cookie, effectId);
  });
  await new Promise<void>((ready, fail) => {
    server.once('error', fail);
    server.listen(settings.port, settings.host, ready);
  });
  const stop = async () => {
    live.close();
    const closed = new Promise((done) => server.close(done));
    server.closeIdleConnections();
    const last = setTimeout(() => server.closeAllConnections(), LAST_MILLISECONDS);
    await closed;
    clearTimeout(last);
    await importer.close();
  };
  return { server, stop };
}
