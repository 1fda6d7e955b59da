import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import type Koa from 'koa';
import serveStatic from 'koa-static';
import { z } from 'zod';

const WEB = fileURLToPath(new URL('../web/dist/', import.meta.url));

/** What the page of an address shows, and what of the API it asks for first. */
const VIEWS: readonly { readonly at: RegExp; readonly shows: string; readonly asks?: string }[] = [
  { at: /^\/$/, shows: 'src/home/Home.vue', asks: '/api/projects' },
  { at: /^\/projects\/([\w-]+)$/, shows: 'src/home/Project.vue', asks: '/api/projects/$1' },
  { at: /^\/effects\/([\w-]+)$/, shows: 'src/bench/Bench.vue', asks: '/api/effects/$1' },
  { at: /^\/help\//, shows: 'src/guide/GuideView.vue' },
];

/** What a build made of each source, as Vite says it. */
const manifestSchema = z.record(
  z.string(),
  z.object({
    file: z.string(),
    css: z.array(z.string()).optional(),
    imports: z.array(z.string()).optional(),
  }),
);
type Manifest = z.infer<typeof manifestSchema>;

/** The scripts and styles that something needs, each once. */
function needsOf(manifest: Manifest, source: string, known = new Set<string>()): Set<string> {
  const made = manifest[source];
  if (!made || known.has(made.file)) return known;
  for (const file of [made.file, ...(made.css ?? [])]) known.add(file);
  for (const each of made.imports ?? []) needsOf(manifest, each, known);
  return known;
}
const linkTo = (file: string): string =>
  file.endsWith('.css') ? `</${file}>; rel=preload; as=style` : `</${file}>; rel=modulepreload`;

/**
 * Serves the application as it was built; every address of it is one page. With the page goes word of what it will ask for,
 * so that this comes beside it, not one thing after the other.
 */
export function serveApplication(web = WEB): Koa.Middleware {
  if (!existsSync(web)) return (_, next) => next();
  const files = serveStatic(web, {
    // What a build names by its content never changes.
    setHeaders: (answer, file) =>
      answer.setHeader(
        'Cache-Control',
        path.dirname(file).endsWith('assets') ? 'public, max-age=31536000, immutable' : 'no-cache',
      ),
  });
  const told = path.join(web, '.vite/manifest.json');
  const manifest = existsSync(told) ? manifestSchema.parse(JSON.parse(readFileSync(told, 'utf8'))) : {};
  const links = VIEWS.map(({ shows }) => {
    const known = new Set<string>();
    for (const source of ['index.html', 'src/application.ts', shows]) needsOf(manifest, source, known);
    return [...known].map(linkTo);
  });
  return (context, next) => {
    // What names no file is an address of the application.
    if (context.method === 'GET' && !/\.[a-z0-9]+$/i.test(context.path)) {
      const n = VIEWS.findIndex(({ at }) => at.test(context.path));
      const { at, asks } = VIEWS[n] ?? {};
      const asked = at && asks ? [`<${context.path.replace(at, asks)}>; rel=preload; as=fetch; crossorigin`] : [];
      if (n >= 0) context.append('Link', [...asked, ...links[n]!].join(', '));
      context.path = '/index.html';
    }
    return files(context, next);
  };
}
