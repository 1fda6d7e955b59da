import { once } from 'node:events';
import { existsSync } from 'node:fs';
import { mkdtemp, readFile, rename, rm } from 'node:fs/promises';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Answer } from '@jinx/core/answers';
import type { FilmKind, FilmSettings } from '@jinx/core/formats';
import Koa from 'koa';
import serveStatic from 'koa-static';
import { chromium } from 'playwright-core';
import { CHROMIUM } from '../chromium.ts';
import { Refusal } from '../errors.ts';

/** The page that takes pictures without a window, as it was built (web/src/film/headless.ts). */
const WEB = fileURLToPath(new URL('../../web/dist/', import.meta.url));
export interface FilmAsk {
  /** A parcel of the one effect. */
  readonly parcel: string;
  readonly kind: FilmKind;
  readonly settings: Partial<FilmSettings>;
  /** The tone curve of the project; filmic where none is said. */
  readonly tone?: Answer<'GET /projects/:id/tone'>;
  /** The folder that the file is put into. */
  readonly out: string;
  /** Draws, and makes no file: for measuring. */
  readonly onlyDraws?: boolean;
  readonly told?: (progress: {
    readonly done: number;
    readonly of: number;
    readonly secondsLeft: number | null;
  }) => void;
}

export interface FilmMade {
  readonly file: string;
  /** Milliseconds that computing and drawing took by themselves, and all of it. */
  readonly drawMilliseconds: number;
  readonly milliseconds: number;
}

/** What `window.takeFilm` of the page answers. */
type Answered = Omit<FilmMade, 'file'> | { readonly sentence: string };

/** Serves the page that takes pictures, on loopback; `parcel` gives the parcel of the effect. */
export async function serveFilmPage(
  parcel: () => Promise<Uint8Array>,
): Promise<{ readonly address: string; readonly close: () => void }> {
  const app = new Koa();
  app.use(async (context, next) => {
    if (context.path !== '/parcel.zip') return next();
    context.type = 'application/zip';
    context.body = Buffer.from(await parcel());
  });
  app.use(serveStatic(WEB));
  const server = app.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  const close = () => {
    server.close();
    server.closeAllConnections();
  };
  return { address: `http://127.0.0.1:${port}/film.html`, close };
}

/**
 * Takes pictures or a film of an effect in Debian's Chromium, without a window. The file is there as a whole or not at all.
 * @throws Refusal with a sentence where it cannot be done.
 */
export async function takeFilmOf({
  parcel,
  kind,
  settings,
  tone,
  out,
  told,
  onlyDraws = false,
}: FilmAsk): Promise<FilmMade> {
  if (!existsSync(path.join(WEB, 'film.html')))
    throw new Refusal(503, 'page', 'The application was not built: start Jinx by ./jinx start, which builds it.');
  const served = await serveFilmPage(() => readFile(parcel));
  const profile = await mkdtemp(path.join(tmpdir(), 'jinx-film-'));
  // What the page keeps while it works lies on the disk, not in memory: a window of nobody would keep it there.
  const context = await chromium.launchPersistentContext(profile, {
    ...CHROMIUM,
    headless: true,
    acceptDownloads: true,
  });
  try {
    const [page = await context.newPage()] = context.pages();
    await page.exposeFunction('heardProgress', (progress: Parameters<NonNullable<FilmAsk['told']>>[0]) =>
      told?.(progress),
    );
    await page.goto(served.address);
    await page.waitForFunction('window.takeFilm !== undefined');
    const downloaded = page.waitForEvent('download', { timeout: 0 });
    downloaded.catch(() => undefined);
    const ask = JSON.stringify({ kind, settings, tone, onlyDraws });
    const answered = await page.evaluate<Answered>(`window.takeFilm(${ask})`);
    if ('sentence' in answered) throw new Refusal(422, 'film', answered.sentence);
    const download = await downloaded;
    const file = path.join(out, download.suggestedFilename());
    const part = `${file}.${process.pid}.part`;
    try {
      await download.saveAs(part);
      await rename(part, file);
    } finally {
      await rm(part, { force: true });
    }
    return { file, ...answered };
  } finally {
    served.close();
    await context.close();
    await rm(profile, { recursive: true, force: true });
  }
}
