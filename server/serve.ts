import { createServer, type Server } from 'node:http';
import type { Logger } from 'pino';
import { mustBeOwn } from './access/own.ts';
import { makeApp } from './app.ts';
import type { Database } from './database.ts';
import { Importer } from './importing/importer.ts';
import { Live } from './live.ts';

/** A server that answers, and how it is ended. */
export interface Serving {
  readonly server: Server;
  /** Takes no more, finishes what it has begun, and is gone. */
  readonly stop: () => Promise<void>;
}

/** What is not answered by then is cut off, so that a stop ends. */
const LAST_MILLISECONDS = 10_000;

/** Serves Jinx on an address of this machine; port 0 takes a free one. */
export async function serve(database: Database, log: Logger, port: number, host = '127.0.0.1'): Promise<Serving> {
  const live = new Live();
  const importer = new Importer(log);
  const app = makeApp({ database, log, live, importer });
  const server = createServer(app.callback());
  // A request has this long to arrive; a large file over a slow line needs some.
  server.requestTimeout = 120_000;
  server.headersTimeout = 15_000;
  live.attach(server, async (request) => {
    mustBeOwn(request.headers, false);
    return '';
  });
  await new Promise<void>((ready, fail) => {
    server.once('error', fail);
    server.listen(port, host, ready);
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
