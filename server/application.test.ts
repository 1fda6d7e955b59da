import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { once } from 'node:events';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import Koa from 'koa';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { serveApplication } from './application.ts';

const SCRIPT = `${'export const lantern = 1;\n'.repeat(200)}`;
const MANIFEST = {
  'src/home/Home.vue': {
    file: 'assets/Home-1.js',
    css: ['assets/Home-1.css'],
    imports: ['_shared.js', 'index.html'],
  },
  '_shared.js': { file: 'assets/shared-1.js', imports: ['index.html'] },
  'index.html': { file: 'assets/index-1.js', css: ['assets/index-1.css'] },
  'src/application.ts': { file: 'assets/application-1.js', imports: ['_shared.js', 'index.html'] },
};

const APPLICATION = [
  '</assets/index-1.js>; rel=modulepreload',
  '</assets/index-1.css>; rel=preload; as=style',
  '</assets/application-1.js>; rel=modulepreload',
  '</assets/shared-1.js>; rel=modulepreload',
];

describe('the application as it is served', () => {
  const web = mkdtempSync(path.join(tmpdir(), 'jinx-web-'));
  let server: Server;
  let address = '';
  beforeAll(async () => {
    for (const folder of ['.vite', 'assets']) mkdirSync(path.join(web, folder));
    writeFileSync(path.join(web, '.vite/manifest.json'), JSON.stringify(MANIFEST));
    writeFileSync(path.join(web, 'index.html'), '<!doctype html><title>Jinx</title>');
    writeFileSync(path.join(web, 'assets/Home-1.js'), SCRIPT);
    execFileSync(process.execPath, [path.join(import.meta.dirname, '../scripts/bundles/compress.mjs'), web]);
    server = new Koa().use(serveApplication(web)).listen(0, '127.0.0.1');
    await once(server, 'listening');
    address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterAll(() => {
    server.close();
    rmSync(web, { recursive: true, force: true });
  });

  it('says with each page what it will ask for, each once and first what runs first', async () => {
    const home = await fetch(`${address}/`);
    expect(await home.text()).toContain('<title>Jinx</title>');
    expect(home.headers.get('link')).toBe(
      [
        '</api/projects>; rel=preload; as=fetch; crossorigin',
        ...APPLICATION,
        '</assets/Home-1.js>; rel=modulepreload',
        '</assets/Home-1.css>; rel=preload; as=style',
      ].join(', '),
    );
    const effect = await fetch(`${address}/effects/4f-2`);
    expect(effect.headers.get('link')).toBe(
      ['</api/effects/4f-2>; rel=preload; as=fetch; crossorigin', ...APPLICATION].join(', '),
    );
    expect((await fetch(`${address}/sign-in`)).headers.get('link')).toBeNull();
  });

  it('is kept by browsers where its name tells its content, and is sent compressed', async () => {
    const script = await fetch(`${address}/assets/Home-1.js`, { headers: { 'Accept-Encoding': 'br' } });
    expect(script.headers.get('cache-control')).toContain('immutable');
    expect(script.headers.get('content-encoding')).toBe('br');
    expect(Number(script.headers.get('content-length'))).toBeLessThan(SCRIPT.length / 10);
    expect(await script.text()).toBe(SCRIPT);
    expect((await fetch(`${address}/`)).headers.get('cache-control')).toBe('no-cache');
    expect((await fetch(`${address}/assets/none.js`)).status).toBe(404);
  });
});
