import { randomUUID } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { encode } from 'fast-png';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { canonicalText, collectionOf, newEffect, newLayer, type Effect } from '@jinx/core/document';
import { linkEffect } from '@jinx/core/editing';
import { refusalByDatabase } from './errors.ts';
import { DEFAULTS, inTransaction } from './index.ts';
import { RawSocket, upgrade } from './testing/raw.ts';
import { DATABASE_URL, TestServer } from './testing/testServer.ts';

const png = (width: number, height: number) => {
  const data = new Uint8Array(width * height * 4);
  for (let n = 0; n < data.length; n++) data[n] = (n * 2654435761) >>> 24;
  return encode({ width, height, channels: 4, data });
};

describe.skipIf(!DATABASE_URL)('a server under attack', () => {
  let server: TestServer;
  const incomingFolder = path.join(tmpdir(), `jinx-defence-${process.pid}`);
  beforeAll(async () => {
    server = await TestServer.start('jinx_defence_test', { incomingFolder });
  });
  afterAll(() => server.stop());
  const ask: TestServer['ask'] = (...words) => server.ask(...words);
  const isWell = async () => expect((await ask('GET', '/health')).status).toBe(200);
  const raw = () => new RawSocket(server.port);

  it.each(['//', '//x', '/\\', '/%', '/%zz', '/api/effects/../live', 'http://[', '*', '/?%E0%A4%A'])(
    'answers an upgrade at "%s", and goes on',
    async (address) => {
      const socket = raw().send(upgrade(address));
      expect((await socket.until(({ text }) => text !== '')).text).toMatch(/^HTTP\/1.1 4\d\d /);
      socket.end();
      await isWell();
    },
  );

  it('looks where an upgrade comes from before it looks at anything else', async () => {
    for (const headers of [{ Origin: 'http://elsewhere.test' }, { Host: 'elsewhere.test' }] as Record<
      string,
      string
    >[])
      for (const address of ['//', `/api/effects/${randomUUID()}/live?window=${randomUUID()}`]) {
        const socket = raw().send(upgrade(address, headers));
        expect((await socket.until(({ text }) => text !== '')).text).toMatch(/^HTTP\/1.1 403 /);
        socket.end();
      }
  });

  it.each([
    ['letters', 'what?\r\n\r\n', 400],
    ['a head without end', `GET / HTTP/1.1\r\nX: ${'x'.repeat(40_000)}`, 431],
    [
      'two lengths',
      'POST /api/projects HTTP/1.1\r\nHost: localhost\r\nContent-Length: 1\r\nContent-Length: 2\r\n\r\n',
      400,
    ],
  ])('answers what is no request: %s', async (_, sent, status) => {
    const socket = raw().send(sent);
    const { text } = await socket.until((one) => one.text !== '');
    expect(Number(text.slice(9, 12))).toBe(status);
    expect((await socket.until(({ isClosed }) => isClosed)).isClosed).toBe(true);
    await isWell();
  });

  it('ends refused connections for good, whether the other half ends or not', async () => {
    await expect.poll(() => server.connections()).toBeLessThan(5);
    const before = await server.connections();
    const sockets = Array.from({ length: 60 }, () => raw().send(upgrade('/api/nothing')));
    await Promise.all(sockets.map((socket) => socket.until(({ text }) => text !== '')));
    await expect.poll(() => server.connections()).toBeLessThanOrEqual(before);
  });

  it('takes no more of a sign-in than a password is long, and waits only so long for it', async () => {
    const long = await ask('POST', '/session', { name: 'x', password: 'x'.repeat(5000) });
    expect([long.status, long.body.code]).toEqual([409, 'open']);
    const team = await TestServer.start('jinx_defence_team', { hasSignIn: true });
    const refused = await team.ask('POST', '/session', { name: 'x', password: 'x'.repeat(5000) });
    expect([refused.status, refused.body.sentence]).toEqual([413, 'This is over the 4 kB that may be sent at once.']);
    const head = 'POST /api/session HTTP/1.1\r\nHost: localhost\r\n';
    const vast = new RawSocket(team.port).send(`${head}Content-Length: 16000000\r\n\r\n{`);
    const slow = new RawSocket(team.port).send(`${head}Content-Length: 100\r\n\r\n{`);
    const headless = new RawSocket(team.port).send(head);
    expect((await vast.until(({ isClosed }) => isClosed)).text).toMatch(/^HTTP\/1.1 413 /);
    expect((await slow.until(({ isClosed }) => isClosed)).text).toMatch(/^HTTP\/1.1 408 /);
    expect((await headless.until(({ isClosed }) => isClosed)).text).toMatch(/^HTTP\/1.1 408 /);
    await team.stop();
  });

  it('serves so many connections of one address and in all, and says so to the rest', async () => {
    const small = await TestServer.start('jinx_defence_small', { connections: 9, connectionsPerAddress: 8 });
    const held = Array.from({ length: 8 }, () => new RawSocket(small.port));
    await expect.poll(() => small.connections()).toBe(8);
    const ninth = new RawSocket(small.port).send('GET /api/health HTTP/1.1\r\nHost: localhost\r\n\r\n');
    const { text } = await ninth.until(({ isClosed }) => isClosed);
    expect(text).toMatch(/^HTTP\/1.1 503 [^]*8 from one address and 9 in all/);
    const silent = new RawSocket(small.port);
    expect((await silent.until(({ isClosed }) => isClosed)).isClosed).toBe(true);
    for (const socket of held) socket.end();
    await expect.poll(async () => (await small.ask('GET', '/health')).status).toBe(200);
    await small.stop();
  });

  it('bounds the work of an edit before it is done', async () => {
    const project = await server.makeProject('Edits');
    const { id, revision, head } = await server.makeEffect(project, newEffect('Lamp', 5));
    const send = (changes: readonly unknown[], times = 1) =>
      ask('POST', `/effects/${id}/edits`, {
        revision,
        head,
        edits: Array.from({ length: times }, () => ({ id: randomUUID(), changes, labels: [] })),
      });
    const keys = Object.fromEntries(Array.from({ length: 100_000 }, (_, n) => [`k${n}`, 0]));
    const thousand = Array.from({ length: 1000 }, (_, n) => ({ path: ['x', `k${n}`], after: 1 }));
    expect((await send([{ path: ['x'], after: keys }, ...thousand])).body.code).toBe('json.list');
    const strange = await send([{ path: ['x'], after: 1 }]);
    expect([strange.status, strange.body.sentence]).toEqual([400, 'an effect has no part "x"']);
    const many = Array.from({ length: 11_000 }, () => ({ path: ['seed'], after: 1 }));
    expect((await send(many, 2)).body.sentence).toContain('20000 changes');
    expect((await server.open(id)).revision).toBe(1);
  });

  it('refuses a document by its number of items, and says at most one thing of it', async () => {
    const project = await server.makeProject('Documents');
    const byId = (count: number) => Object.fromEntries(Array.from({ length: count }, (_, n) => [`l${n}`, {}]));
    const withLayers = (count: number) => ({ ...newEffect('Lamp', 5), layers: { order: [], byId: byId(count) } });
    const make = (count: number) => ask('POST', `/projects/${project}/effects`, { document: withLayers(count) });
    expect((await make(450_000)).body.code).toBe('json.list');
    expect((await make(19_000)).body.sentence).toContain('there are 19000 of these');
    expect((await make(100)).status).toBe(422);
    await isWell();
  });

  it('reads and sends assets of many slices unchanged', async () => {
    const project = await server.makeProject('Slices');
    const asset = (await ask('POST', `/projects/${project}/assets?name=noise.png`, png(700, 600))).body;
    const answer = await fetch(`${server.base}/assets/${asset.hash}`);
    const bytes = new Uint8Array(await answer.arrayBuffer());
    const { hashName, readCanonicalPicture } = await import('@jinx/core/formats');
    expect(hashName(bytes)).toBe(asset.hash);
    expect(readCanonicalPicture(bytes)).toMatchObject({ width: 700, height: 600 });
    expect(Number((await server.database.query('select count(*) from asset_slices')).rows[0].count)).toBeGreaterThan(
      6,
    );
    expect(readdirSync(incomingFolder)).toEqual([]);
  });

  it('makes no parcel that could not be imported again, and says why', async () => {
    const project = await server.makeProject('Parcels');
    const effect = newEffect('Lamp', 5);
    const hashes = ['a', 'b', 'c'].map((letter) => letter.repeat(64));
    for (const hash of hashes) {
      await server.database.query(`insert into assets (hash, kind, size) values ($1, 'picture', 200000000)`, [hash]);
      await server.database.query('insert into project_assets (project_id, hash, name) values ($1, $2, $2)', [
        project,
        hash,
      ]);
    }
    effect.dials = collectionOf(
      hashes.map((asset, n) => [
        `d${n}`,
        { kind: 'picture', name: `D${n}`, shows: { asset, name: 'P' }, standsFor: { asset, name: 'P' } },
      ]),
    );
    const made = await ask('POST', `/projects/${project}/effects`, { document: effect });
    const answer = await ask('GET', `/effects/${made.body.id}/parcel`);
    expect([answer.status, answer.body.code]).toEqual([422, 'parcel.large']);
    expect(answer.body.sentence).toMatch(/could not be imported again: its files take 572 MB.*up to 512 MB/);
    await server.database.query('delete from projects where id = $1', [project]);
  });

  it('hands out an effect of very many layers that are alike as a parcel that is read again, or says why not', async () => {
    const project = await server.makeProject('Alike');
    const effect = newEffect('Lamp', 5);
    effect.layers = collectionOf(Array.from({ length: 128 }, (_, n) => [`l${n}`, newLayer('Motes', n)]));
    const { id } = await server.makeEffect(project, effect);
    const answer = await fetch(`${server.base}/effects/${id}/parcel`);
    expect(answer.status).toBe(200);
    const parcel = new Uint8Array(await answer.arrayBuffer());
    const other = await server.makeProject('Other');
    expect((await ask('POST', `/projects/${other}/parcels`, parcel)).status).toBe(201);
  });

  it('takes thumbnails and pictures of the tray up to 1024 pixels a side, by what they state', async () => {
    const project = await server.makeProject('Pictures');
    const { id } = await server.makeEffect(project, newEffect('Lamp', 5));
    const put = (bytes: Uint8Array) => ask('PUT', `/effects/${id}/picture?revision=1`, bytes);
    expect((await put(png(64, 36))).status).toBe(204);
    const large = await put(encode({ width: 1025, height: 1, channels: 4, data: new Uint8Array(4100) }));
    expect([large.status, large.body.code]).toEqual([422, 'picture.large']);
    const kept = {
      name: 'State',
      seconds: 0,
      document: newEffect('Lamp', 5),
      picture: Buffer.from(encode({ width: 1, height: 1025, channels: 4, data: new Uint8Array(4100) })).toString(
        'base64',
      ),
    };
    expect((await ask('POST', `/effects/${id}/tray`, kept)).body.code).toBe('picture.large');
    expect((await ask('GET', `/effects/${id}/tray`)).body).toEqual([]);
  });

  it('keeps nothing of uploads that are not finished, and takes only so many at once', async () => {
    const project = await server.makeProject('Uploads');
    const head = `POST /api/projects/${project}/assets?name=x.png HTTP/1.1\r\nHost: localhost\r\nContent-Length: 50000000\r\n\r\n`;
    const sockets = Array.from({ length: 6 }, () => raw().send(head).send(new Uint8Array(1_000_000)));
    await expect.poll(() => readdirSync(incomingFolder).length).toBe(4);
    await expect.poll(() => sockets.filter(({ text }) => text.startsWith('HTTP/1.1 503')).length).toBe(2);
    for (const socket of sockets) socket.end();
    await expect.poll(() => readdirSync(incomingFolder)).toEqual([]);
  });

  it('refuses what there is no room for, of a project and of all, and tells what is used', async () => {
    const small = await TestServer.start('jinx_defence_quota', { projectBytes: 400_000 });
    const project = await small.makeProject('Small');
    const asset = (name: string, side: number) =>
      small.ask('POST', `/projects/${project}/assets?name=${name}.png`, png(side, side));
    expect((await asset('a', 200)).status).toBe(201);
    const refused = await asset('b', 250);
    expect([refused.status, refused.body.code]).toEqual([507, 'quota']);
    expect(refused.body.sentence).toContain('JINX_GIGABYTES_A_PROJECT');
    const { disk } = (await small.ask('GET', `/projects/${project}`)).body;
    expect([disk.mostBytes, disk.mostAllBytes]).toEqual([400_000, DEFAULTS.totalBytes]);
    expect(disk.allBytes).toBeGreaterThan(disk.bytes);
    expect(disk.bytes).toBeGreaterThan(160_000);
    expect(disk.bytes).toBeLessThan(400_000);
    await small.stop();
    const full = await TestServer.start('jinx_defence_full', { totalBytes: 1000 });
    const other = await full.makeProject('Full');
    expect((await full.ask('POST', `/projects/${other}/assets?name=a.png`, png(2, 2))).body.sentence).toContain(
      'JINX_GIGABYTES',
    );
    await full.stop();
  });

  it.each<[string, () => Promise<{ status: number; body: { code: string } }>, number]>([
    ['NUL in a name of a project', () => ask('POST', '/projects', { name: 'a\0b' }), 400],
    ['half a letter in a name', () => ask('POST', '/projects', { name: 'a\ud800' }), 400],
    [
      'NUL in the name of a file',
      async () => ask('POST', `/projects/${await server.makeProject('N')}/assets?name=%00.png`, png(2, 2)),
      400,
    ],
    [
      'NUL in the name of an effect',
      async () =>
        ask('POST', `/projects/${await server.makeProject('N')}/effects`, { document: newEffect('a\0b', 1) }),
      422,
    ],
  ])('refuses %s', async (_, send, status) => {
    expect((await send()).status).toBe(status);
  });

  it('refuses revisions that are none, labels that cannot be kept, and ids of others', async () => {
    const project = await server.makeProject('Ids');
    const [one, two] = [
      await server.makeEffect(project, newEffect('One', 5)),
      await server.makeEffect(project, newEffect('Two', 5)),
    ];
    const edit = (id: string, of: typeof one, labels: string[] = [], revision = of.revision) =>
      ask('POST', `/effects/${of.id}/edits`, {
        revision,
        head: of.head,
        edits: [{ id, changes: [{ path: ['seed'], before: 5, after: 6 }], labels }],
      });
    expect((await edit(randomUUID(), one, [], 2 ** 31)).status).toBe(400);
    expect((await edit(randomUUID(), one, ['a\0'])).status).toBe(400);
    expect((await ask('GET', `/effects/${one.id}/edits?revision=4294967296&head=${one.head}`)).status).toBe(400);
    expect((await ask('PUT', `/effects/${one.id}/picture?revision=2147483648`, png(2, 2))).status).toBe(400);
    expect((await ask('GET', `/effects/${one.id}/revisions/2147483648`)).status).toBe(404);
    const shared = randomUUID();
    expect((await edit(shared, one)).status).toBe(200);
    const taken = await edit(shared, two);
    expect([taken.status, taken.body.code]).toEqual([409, 'known']);
    const state = { id: randomUUID(), name: 'S', seconds: 0, document: newEffect('S', 1), picture: null };
    for (const [id, status] of [
      [one.id, 201],
      [one.id, 201],
      [two.id, 409],
    ] as const)
      expect((await ask('POST', `/effects/${id}/tray`, state)).status).toBe(status);
  });

  it('has what PostgreSQL refuses of what was sent answered as refused', () => {
    const statusOf = (code: string) => refusalByDatabase({ code })?.status;
    expect(['22021', '22003', '23505', '53100', '57014', '42601'].map(statusOf)).toEqual([
      400,
      400,
      409,
      507,
      503,
      undefined,
    ]);
  });

  it('takes no part by a name that every object has, and shows fonts of its own alone', async () => {
    const project = await server.makeProject('Names');
    const named = { ...newEffect('Lamp', 5), layers: collectionOf([['constructor', newLayer('Motes', 1)]]) };
    expect((await ask('POST', `/projects/${project}/effects`, { document: named })).status).toBe(422);
    const { headers } = await fetch(`${server.base}/health`);
    expect(headers.get('content-security-policy')).toContain("font-src 'self';");
  });

  it('links no two effects into each other, also not at once', async () => {
    const project = await server.makeProject('Circles');
    for (let times = 0; times < 12; times++) {
      const ids = [];
      for (const name of ['One', 'Two']) ids.push((await server.makeEffect(project, newEffect(name, 5))).id);
      const [one, two] = ids as [string, string];
      const link = async (into: string, of: string) => {
        const { document } = await server.open(of);
        return server.change(into, (draft: Effect) => linkEffect(draft, 'inner', of, document));
      };
      const answers = await Promise.all([link(one, two), link(two, one)]);
      expect(answers.map(({ status }) => status).sort()).toEqual([200, 422]);
    }
  });

  it('answers a save before sixty siblings follow, and then all follow', async () => {
    const project = await server.makeProject('Siblings');
    const { id } = await server.makeEffect(project, newEffect('Lamp', 5));
    const siblings: string[] = [];
    for (let n = 0; n < 60; n++)
      siblings.push((await ask('POST', `/effects/${id}/siblings`, { name: `Lamp ${n}` })).body.id);
    // No sibling can follow while others hold their rows.
    const saved = await inTransaction(server.database, async (session) => {
      await session.query('select 1 from effects where id = any($1) for no key update', [siblings]);
      return server.change(id, (draft) => (draft.stretches.opening = 3));
    });
    expect(saved.body.following).toMatchObject({ waiting: 60, failed: [] });
    // More changes before they are through are taken together.
    for (const seconds of [4, 5]) await server.change(id, (draft) => (draft.stretches.opening = seconds));
    await server.settle();
    for (const sibling of siblings) expect((await server.open(sibling)).document.stretches.opening).toBe(5);
    const { following } = (await ask('GET', `/effects/${id}`)).body;
    expect(following).toMatchObject({ waiting: 0, failed: [] });
    expect(following.at).toBeGreaterThan(saved.body.following.at);
  });

  it('tells which effect could not follow, and tries again with the next change', async () => {
    const project = await server.makeProject('Failing');
    const { id } = await server.makeEffect(project, newEffect('Lamp', 5));
    const sibling = (await ask('POST', `/effects/${id}/siblings`, { name: 'Broken' })).body.id;
    const { rows } = await server.database.query('select document, head from effects where id = $1', [sibling]);
    // As a fault of ours might leave it.
    const head = randomUUID();
    await server.database.query(`update effects set document = '{}', head = $2 where id = $1`, [sibling, head]);
    await server.change(id, (draft) => (draft.seed = 6));
    await server.settle();
    const told = (await ask('GET', `/effects/${id}`)).body.following;
    expect([told.waiting, told.failed.length, told.failed[0].name]).toEqual([0, 1, 'Broken']);
    await server.database.query('update effects set document = $2, head = $3 where id = $1', [
      sibling,
      rows[0].document,
      rows[0].head,
    ]);
    await server.change(id, (draft) => (draft.seed = 7));
    await server.settle();
    expect((await server.open(sibling)).document.seed).toBe(7);
  });

  it('lets a sibling take what it has yet to take before it goes its own way', async () => {
    const project = await server.makeProject('Going');
    const { id } = await server.makeEffect(project, newEffect('Lamp', 5));
    const sibling = (await ask('POST', `/effects/${id}/siblings`, { name: 'Own' })).body.id;
    await Promise.all([server.change(id, (draft) => (draft.seed = 8))]);
    await ask('DELETE', `/effects/${sibling}/sibling`);
    expect((await server.open(sibling)).document.seed).toBe(8);
    const { document } = await server.open(id);
    expect(canonicalText({ ...document, name: 'Own' })).toBe(canonicalText((await server.open(sibling)).document));
  });
});

it('has limits of connections by default', () => {
  expect([DEFAULTS.connections, DEFAULTS.connectionsPerAddress]).toEqual([256, 32]);
});
