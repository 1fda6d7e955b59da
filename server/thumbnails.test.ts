import { readFileSync } from 'node:fs';
import { connect } from 'node:net';
import { encode } from 'fast-png';
import { strToU8 } from 'fflate';
import { newEffect } from '@jinx/core/document';
import { EFFECTS, KIT, makeKit } from '@jinx/demo';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seed } from './kit.ts';
import { DATABASE_URL, TestServer } from './testing/testServer.ts';

const PNG = encode({ width: 2, height: 1, data: new Uint8Array([255, 0, 0, 255, 0, 0, 255, 255]) });

describe.skipIf(!DATABASE_URL)('lists and thumbnails', () => {
  let server: TestServer;
  beforeAll(async () => {
    await makeKit();
    server = await TestServer.start('jinx_thumbnails_test');
  });
  afterAll(() => server.stop());
  const ask = (method: string, path: string, body?: unknown) => server.ask(method, path, body);
  const typeOf = async (path: string) => (await fetch(`${server.base}${path}`)).headers.get('content-type');

  it('the demo comes with a thumbnail of each effect, of its first revision, and of all of the kit', async () => {
    await seed(server.database);
    const [fenlight] = (await ask('GET', '/projects')).body;
    expect([fenlight.name, fenlight.effects, fenlight.recent.length]).toEqual(['Fenlight', EFFECTS.length, 13]);
    for (const { id, revision, pictureRevision } of fenlight.recent) {
      expect(pictureRevision).toBe(revision);
      expect(await typeOf(`/effects/${id}/picture`)).toBe('image/webp');
    }
    // By another tone curve they are made anew; until then the last one is served.
    await ask('PATCH', `/projects/${fenlight.id}`, { tone: 'neutral' });
    const [{ recent: outdated }] = (await ask('GET', '/projects')).body;
    for (const { pictureRevision, pictures } of outdated) expect([pictureRevision, pictures]).toEqual([null, 1]);
    const { assets } = (await ask('GET', `/projects/${fenlight.id}`)).body;
    expect(assets.length).toBeGreaterThan(8);
    for (const { hash, hasThumbnail } of assets) {
      expect(hasThumbnail).toBe(true);
      expect(await typeOf(`/projects/${fenlight.id}/assets/${hash}/thumbnail`)).toBe('image/webp');
    }
    for (const file of (await ask('GET', '/kit')).body)
      expect(await typeOf(`/kit/${file}/thumbnail`)).toBe('image/webp');
    expect((await ask('GET', '/kit/..%2Fpictured.json/thumbnail')).status).toBe(404);
  });

  it('what was brought in has a thumbnail once one is sent, in its own project alone', async () => {
    const [one, other] = [await server.makeProject('One'), await server.makeProject('Other')];
    const bring = async (project: string) =>
      (await ask('POST', `/projects/${project}/assets?name=spot.png`, PNG)).body.hash as string;
    const hash = await bring(one);
    await bring(other);
    const at = `/projects/${one}/assets/${hash}/thumbnail`;
    expect((await ask('GET', at)).status).toBe(404);
    expect((await ask('PUT', at, strToU8('no picture'))).status).toBe(422);
    expect((await ask('PUT', at, PNG)).status).toBe(204);
    expect(await typeOf(at)).toBe('image/png');
    const has = async (project: string) => (await ask('GET', `/projects/${project}`)).body.assets[0].hasThumbnail;
    expect([await has(one), await has(other)]).toEqual([true, false]);
    expect((await ask('PUT', `/projects/${one}/assets/${'0'.repeat(64)}/thumbnail`, PNG)).status).toBe(404);
  });

  it('projects come in the order in which they were worked on, and are found by their effects', async () => {
    const [reeds, salt] = [await server.makeProject('Reeds 50%'), await server.makeProject('Salt')];
    for (let n = 0; n < 20; n++) await server.makeEffect(reeds, newEffect(`Sedge leaf ${n}`, n));
    await server.makeEffect(salt, newEffect('Sedge leaf of salt', 1));
    const find = async (text: string) =>
      (await ask('GET', `/projects?find=${encodeURIComponent(text)}`)).body as {
        name: string;
        effects: number;
        recent: { name: string }[];
      }[];
    expect((await find('')).slice(0, 2).map(({ name }) => name)).toEqual(['Salt', 'Reeds 50%']);
    const byEffect = await find('sedge leaf');
    expect(byEffect.map(({ name, effects }) => [name, effects])).toEqual([
      ['Salt', 1],
      ['Reeds 50%', 20],
    ]);
    const { recent } = byEffect[1]!;
    expect([recent.length, recent[0]!.name]).toEqual([18, 'Sedge leaf 19']);
    // By its own name a project comes with all it has; signs of patterns are letters here.
    expect((await find('50%')).map(({ name, effects }) => [name, effects])).toEqual([['Reeds 50%', 20]]);
    expect(await find('%')).toHaveLength(1);
    expect(await find('_')).toHaveLength(0);
  });

  it('keeps nothing of a figure that was given up while it was looked through', async () => {
    const project = await server.makeProject('Given up');
    const file = readFileSync(new URL('sedge.glb', KIT));
    const { hostname, port } = new URL(server.base);
    await new Promise<void>((ended) => {
      const socket = connect(Number(port), hostname, () => {
        socket.write(
          `POST /api/projects/${project}/assets?name=sedge.glb HTTP/1.1\r\nHost: ${hostname}:${port}\r\n` +
            `Content-Length: ${file.length}\r\n\r\n`,
        );
        socket.write(file, () => setTimeout(() => socket.destroy(), 20));
      });
      socket.on('close', () => ended());
    });
    // Another figure is taken in after it: by then the first would be there.
    const puff = readFileSync(new URL('puff.glb', KIT));
    expect((await ask('POST', `/projects/${project}/assets?name=puff.glb`, new Uint8Array(puff))).status).toBe(201);
    await new Promise((later) => setTimeout(later, 1500));
    const { assets } = (await ask('GET', `/projects/${project}`)).body;
    expect(assets.map(({ name }: { name: string }) => name)).toEqual(['puff']);
  });
});
