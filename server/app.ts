import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import Koa from 'koa';
import compress from 'koa-compress';
import helmet from 'koa-helmet';
import serveStatic from 'koa-static';
import type { Logger } from 'pino';
import type { Database } from './database.ts';
import { answerErrors, Refusal } from './errors.ts';
import { routes } from './routes.ts';

const WEB = fileURLToPath(new URL('../web/dist/', import.meta.url));

/** Answers only to its own name, and takes changes only from its own pages. */
function ownPagesOnly(): Koa.Middleware {
  return async (context, next) => {
    const host = context.get('host');
    const name = host.replace(/:\d+$/, '');
    if (name !== 'localhost' && name !== '127.0.0.1')
      throw new Refusal(403, 'host', 'Jinx answers only on this machine: use localhost.');
    const origin = context.get('origin');
    if (context.method !== 'GET' && origin && origin !== `${context.protocol}://${host}`)
      throw new Refusal(403, 'origin', 'Changes are taken only from Jinx itself.');
    await next();
  };
}

export function makeApp(database: Database, log: Logger): Koa {
  const app = new Koa();
  app.use(answerErrors(log));
  app.use(ownPagesOnly());
  app.use(
    helmet({
      crossOriginOpenerPolicy: { policy: 'same-origin' },
      crossOriginEmbedderPolicy: { policy: 'require-corp' },
      strictTransportSecurity: false,
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          mediaSrc: ["'self'", 'blob:'],
          workerSrc: ["'self'", 'blob:'],
          upgradeInsecureRequests: null,
        },
      },
    }),
  );
  app.use(compress({ threshold: 2048 }));
  const api = routes(database);
  app.use(api.routes()).use(api.allowedMethods());
  app.use(async (context, next) => {
    if (context.path.startsWith('/api/')) throw new Refusal(404, 'not-found', 'There is nothing at this address.');
    // Every address of the application is one page.
    if (context.method === 'GET' && !/\.[a-z0-9]+$/i.test(context.path)) context.path = '/index.html';
    await next();
  });
  if (existsSync(WEB)) app.use(serveStatic(WEB));
  return app;
}
