import { request } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pino } from 'pino';
import { encode } from 'fast-png';
import { strToU8 } from 'fflate';
import { newEffect, newLayer, type Effect, collectionOf, namedColour } from '@jinx/core/document';
import { linkEffect } from '@jinx/core/editing';
import { KIT_FIGURES, KIT_PROPS, KIT_PICTURES, lamplitMantle, makeKit } from '@jinx/demo';
import { DEFAULTS, connect, inTransaction, migrate, serve, type Database } from './index.ts';
import { DATABASE_URL, TestServer } from './testing/testServer.ts';

// These run against a real PostgreSQL, which ./jinx test brings up; they use a database of their own in it.
describe.skipIf(!DATABASE_URL)('the server', () => {
  let server: TestServer;
  let database: Database;
  let base = '';
  beforeAll(async () => {
    await makeKit();
    server = await TestServer.start('jinx_server_test');
    await migrate(server.database);
    ({ database, base } = server);
  });
  afterAll(() => server.stop());

  const ask = (method: string, path: string, body?: unknown, headers?: Record<string, string>) =>
    server.ask(method, path, body, headers);
  const makeProject = (name: string) => server.makeProject(name);
  const makeEffect = (projectId: string, document: Effect) => server.makeEffect(projectId, document);
  const count = (table: string) => server.count(table);

  it('keeps an effect as canonical text and gives it back whole', async () => {
    const made = await makeEffect(await makeProject('One'), newEffect('Lamp', 5));
    const loaded = (await ask('GET', `/effects/${made.id}`)).body;
    expect(loaded.document).toEqual(newEffect('Lamp', 5));
    expect(loaded.revision).toBe(1);
  });

  it('finds a word in everything that is set in the effects of a project, and in no other project', async () => {
    const [project, other] = [await makeProject('Marsh'), await makeProject('Elsewhere')];
    const lamp = newEffect('Lamp', 5);
    lamp.palette = collectionOf([['ember', namedColour('Ember', '#ff7a2e')]]);
    lamp.layers = collectionOf([['motes', newLayer('Motes', 1)]]);
    await makeEffect(project, lamp);
    await makeEffect(project, newEffect('Bell', 6));
    await makeEffect(other, lamp);
    const search = async (text: string) =>
      (await ask('GET', `/projects/${project}/search?text=${encodeURIComponent(text)}`)).body;
    expect(await search('ember')).toMatchObject([
      { name: 'Lamp', more: 0, lines: [{ heading: 'The effect', name: 'colour Ember', value: '#ff7a2e' }] },
    ]);
    // All words, in any order; an effect's own name too.
    expect((await search('rate motes'))[0].lines).toHaveLength(1);
    expect((await search('bell')).map(({ name }: { name: string }) => name)).toEqual(['Bell']);
    expect(await search('moth')).toEqual([]);
    expect(await search('  ')).toEqual([]);
    expect((await ask('GET', `/projects/${crypto.randomUUID()}/search?text=a`)).status).toBe(404);
  });

  it('names the path of what is wrong in a document, and keeps nothing of it', async () => {
    const project = await makeProject('Two');
    const before = await count('effects');
    const broken = { ...newEffect('Lamp', 5), stretches: { opening: -1, hold: { kind: 'none' }, closing: 0 } };
    const answer = await ask('POST', `/projects/${project}/effects`, { document: broken });
    expect(answer.status).toBe(422);
    expect(answer.body.path).toBe('stretches.opening');
    const strange = await ask('POST', `/projects/${project}/effects`, {
      document: { ...newEffect('Lamp', 5), extra: 1 },
    });
    expect(strange.body.sentence).toContain('"extra"');
    expect(await count('effects')).toBe(before);
  });

  it('makes siblings that follow what they did not change, and theirs, until they are let go', async () => {
    const projectId = await makeProject('Siblings');
    const made = await makeEffect(projectId, newEffect('Lamp', 5));
    const sibling = (await ask('POST', `/effects/${made.id}/siblings`, { name: 'Blue lamp' })).body;
    const grandchild = (await ask('POST', `/effects/${sibling.id}/siblings`, { name: 'Small blue lamp' })).body;
    const load = (id: string) => server.open(id);
    const save = async (id: string, change: (draft: Effect) => void) => {
      expect((await server.change(id, change)).status).toBe(200);
      await server.settle();
    };
    expect(await load(made.id)).toMatchObject({ siblingOf: null, siblings: [{ id: sibling.id, name: 'Blue lamp' }] });
    expect(await load(sibling.id)).toMatchObject({ siblingOf: { id: made.id, name: 'Lamp' } });
    const listed = (await ask('GET', `/projects/${projectId}`)).body.effects;
    expect(listed.map(({ siblingOf }: { siblingOf: string | null }) => siblingOf)).toEqual([
      'Lamp',
      null,
      'Blue lamp',
    ]);

    await save(sibling.id, (draft) => (draft.seed = 99));
    await save(made.id, (draft) => {
      draft.seed = 6;
      draft.stretches.opening = 3;
    });
    for (const [id, name] of [
      [sibling.id, 'Blue lamp'],
      [grandchild.id, 'Small blue lamp'],
    ]) {
      const { document } = await load(id);
      expect([document.name, document.seed, document.stretches.opening]).toEqual([name, 99, 3]);
    }
    expect((await load(sibling.id)).revision).toBe(3);

    expect((await ask('DELETE', `/effects/${sibling.id}/sibling`)).status).toBe(204);
    await save(made.id, (draft) => (draft.stretches.opening = 4));
    expect((await load(sibling.id)).document.stretches.opening).toBe(3);
    expect(await load(sibling.id)).toMatchObject({ siblingOf: null });
    // Whoever is followed may be deleted: those that followed stay.
    expect((await ask('DELETE', `/effects/${sibling.id}`)).status).toBe(204);
    expect(await load(grandchild.id)).toMatchObject({ siblingOf: null, document: { seed: 99 } });
    expect((await ask('POST', `/effects/${sibling.id}/siblings`, { name: 'Late' })).status).toBe(404);
    expect((await ask('POST', `/effects/${made.id}/siblings`, { name: ' ' })).body.sentence).toContain('a name');
  });

  it('keeps what is linked as the other effect is, and lets no effect stand in itself', async () => {
    const projectId = await makeProject('Linked');
    const make = async (name: string) => (await makeEffect(projectId, newEffect(name, 5))).id as string;
    const [flame, lantern, hall] = [await make('Flame'), await make('Lantern'), await make('Hall')];
    const load = (id: string) => server.open(id);
    const save = async (id: string, change: (draft: Effect) => void) => {
      const answer = await server.change(id, change);
      await server.settle();
      return answer;
    };
    const link = async (into: string, of: string) => {
      const { document } = await load(of);
      return save(into, (draft) => linkEffect(draft, 'inner', of, document));
    };
    expect((await link(lantern, flame)).status).toBe(200);
    expect((await link(hall, lantern)).status).toBe(200);
    await save(flame, (draft) => (draft.layers = collectionOf([['spark', newLayer('Spark', 77)]])));
    const inner = async (id: string) => (await load(id)).document.groups.byId['inner']!.linked!.effect.layers.order;
    expect(await inner(lantern)).toEqual(['spark']);
    expect(await inner(hall)).toEqual(['spark']);
    const circle = await link(flame, hall);
    expect([circle.status, circle.body.code]).toEqual([422, 'circle']);
    expect((await load(flame)).document.groups.order).toEqual([]);
    expect((await link(flame, flame)).body.code).toBe('circle');
    // A sibling takes on what is linked: what follows an effect cannot stand in it either, nor what holds that.
    const follower = (await ask('POST', `/effects/${flame}/siblings`, { name: 'Blue flame' })).body.id;
    expect((await link(flame, follower)).body.code).toBe('circle');
    const shelf = await make('Shelf');
    expect((await link(shelf, follower)).status).toBe(200);
    expect((await link(flame, shelf)).body.code).toBe('circle');
    await save(flame, (draft) => (draft.seed = 8));
    expect((await load(shelf)).document.groups.byId['inner']!.linked!.effect.seed).toBe(8);
    // What is taken away is followed no more.
    await save(shelf, (draft) => (draft.groups = collectionOf([])));
    const { revision } = await load(shelf);
    await save(flame, (draft) => (draft.seed = 9));
    expect((await load(shelf)).revision).toBe(revision);
  });

  it('takes changes only from its own pages', async () => {
    for (const Origin of ['http://elsewhere.test', 'null', 'https://127.0.0.1', `${base.replace('/api', '')}.evil`]) {
      const foreign = await ask('POST', '/projects', { name: 'Trick' }, { Origin });
      expect([Origin, foreign.status, foreign.body.code]).toEqual([Origin, 403, 'origin']);
    }
    expect((await ask('POST', '/projects', { name: 'Fine' }, { Origin: base.replace('/api', '') })).status).toBe(201);
  });

  it('lets no page on another origin read anything, nor stand around it', async () => {
    const { headers } = await fetch(`${base}/projects`, { headers: { Origin: 'http://elsewhere.test' } });
    expect(headers.get('access-control-allow-origin')).toBeNull();
    expect(headers.get('cross-origin-resource-policy')).toBe('same-origin');
    expect(headers.get('content-security-policy')).toContain("frame-ancestors 'self'");
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    expect(headers.get('x-powered-by')).toBeNull();
  });

  it('finishes what it has begun before it is gone', async () => {
    const own = await TestServer.start('jinx_stop_test');
    const { id } = await own.makeEffect(await own.makeProject('Last'), newEffect('Lamp', 5));
    const opened = await own.open(id);
    const url = own.databaseUrl;
    // Somebody else holds the effect for a moment, so that the save is under way as the server is told to stop.
    const holder = connect(url);
    const client = await holder.connect();
    await client.query('begin');
    await client.query('select 1 from effects where id = $1 for update', [id]);
    const saving = own.change(opened, (draft) => (draft.seed = 6));
    const waits = `select 1 from pg_stat_activity where datname = 'jinx_stop_test' and wait_event_type = 'Lock'`;
    await expect.poll(async () => (await holder.query(waits)).rowCount).toBe(1);
    const stopped = own.stop();
    const takesMore = () =>
      fetch(`${own.base}/health`).then(
        () => true,
        () => false,
      );
    await expect.poll(takesMore).toBe(false);
    await client.query('commit');
    client.release();
    expect((await saving).body.revision).toBe(2);
    await stopped;
    const { rows } = await holder.query('select revision from effects where id = $1', [id]);
    expect(rows[0].revision).toBe(2);
    await holder.end();
  });

  it('does what is costly only so often, and says when again', async () => {
    const own = await TestServer.start('jinx_often_test', { costlyPerMinute: 3 });
    const project = await own.makeProject('Often');
    const search = () => fetch(`${own.base}/projects/${project}/search?text=lamp`);
    const answers = [];
    for (let times = 0; times < 4; times++) answers.push(await search());
    expect(answers.map(({ status }) => status)).toEqual([200, 200, 200, 429]);
    expect(Number(answers[3]!.headers.get('retry-after'))).toBeGreaterThan(0);
    // What costs little goes on.
    expect((await own.ask('GET', `/projects/${project}`)).status).toBe(200);
    await own.stop();
  });

  it('tells apart that it is well and that it is ready', async () => {
    expect((await ask('GET', '/health')).body).toEqual({ isWell: true });
    expect((await ask('GET', '/ready')).body).toEqual({ isReady: true });
  });

  it('answers only to its own name, so that no other name led here can read anything', async () => {
    const statusFor = (host: string) =>
      new Promise<number>((resolve, reject) =>
        request(`${base}/projects`, { headers: { host } }, (answer) => (answer.resume(), resolve(answer.statusCode!)))
          .on('error', reject)
          .end(),
      );
    const { port } = server;
    expect(await statusFor(`localhost:${port}`)).toBe(200);
    expect(await statusFor(`rebound.test:${port}`)).toBe(403);
  });

  it('isolates its pages, so that threads may share memory', async () => {
    const { headers } = await fetch(`${base}/projects`);
    expect(headers.get('cross-origin-opener-policy')).toBe('same-origin');
    expect(headers.get('cross-origin-embedder-policy')).toBe('require-corp');
    expect(headers.get('content-security-policy')).toContain("script-src 'self' 'wasm-unsafe-eval'");
  });

  it('refuses what is not JSON, what is too long and what a project cannot be, with a sentence', async () => {
    const project = await makeProject('Nine');
    const post = async (body: string) => {
      const answer = await fetch(`${base}/projects`, { method: 'POST', body });
      return { status: answer.status, body: (await answer.json()) as { sentence: string } };
    };
    expect((await post('{"name": ')).body.sentence).toBe('What was sent cannot be read: this is not JSON.');
    expect((await post(JSON.stringify({ name: 'x'.repeat(17 * 1024 * 1024) }))).status).toBe(413);
    expect((await post(JSON.stringify({ name: '  ' }))).body.sentence).toBe('a project needs a name');
    expect((await post(JSON.stringify({ name: 'x'.repeat(81) }))).body.sentence).toContain('80 letters');
    const budget = await ask('PATCH', `/projects/${project}`, { livingBudget: 5 });
    expect(budget.body).toMatchObject({ sentence: 'a budget is at least 1,000', path: 'livingBudget' });
    expect((await ask('PATCH', `/projects/${project}`, { livingBudget: 250_000 })).status).toBe(204);
    expect((await ask('GET', `/projects/${project}`)).body.livingBudget).toBe(250_000);
  });

  it('begins with a starting point: an effect of its own with all it uses, or nothing at all', async () => {
    const project = await makeProject('Begun');
    const starts = (await ask('GET', '/starts')).body;
    expect(starts.length).toBeGreaterThanOrEqual(11);
    const { status, body } = await ask('POST', `/projects/${project}/starts`, {
      start: 'unmaking',
      name: 'My moths',
    });
    expect(status).toBe(201);
    const { document } = (await ask('GET', `/effects/${body.id}`)).body;
    expect(document.name).toBe('My moths');
    expect(Object.keys(document.layers.byId).length).toBeGreaterThan(4);
    // What it uses came along, and no more of the kit.
    const { assets } = (await ask('GET', `/projects/${project}`)).body;
    expect(assets.map(({ name }: { name: string }) => name).sort()).toEqual(['Bogling', 'Moth', 'Tallow']);
    const again = (await ask('POST', `/projects/${project}/starts`, { start: 'unmaking', name: '' })).body;
    expect(again.name).toBe('Moth Unmaking');
    expect(again.id).not.toBe(body.id);
    const effects = await count('effects');
    expect((await ask('POST', `/projects/${project}/starts`, { start: 'none', name: '' })).body.sentence).toMatch(
      /no starting point "none"/,
    );
    const nowhere = await ask('POST', `/projects/${crypto.randomUUID()}/starts`, { start: 'bolt', name: '' });
    expect(nowhere.status).toBe(404);
    expect(await count('effects')).toBe(effects);
  });

  it('gives only what lies in the kit', async () => {
    expect((await ask('GET', '/kit')).body).toEqual([...KIT_FIGURES, ...KIT_PROPS, ...KIT_PICTURES].sort());
    const answer = await ask('POST', `/projects/${await makeProject('Ten')}/kit`, { file: '../make.ts' });
    expect(answer.status).toBe(404);
    expect(answer.body.sentence).toContain('"../make.ts"');
  });

  it('keeps a picture of an effect with the revision it shows, and only a picture', async () => {
    const { id } = await makeEffect(await makeProject('Eleven'), newEffect('Lamp', 5));
    expect((await ask('GET', `/effects/${id}/picture`)).status).toBe(404);
    const png = encode({ width: 2, height: 1, data: new Uint8Array([255, 0, 0, 255, 0, 0, 255, 255]) });
    expect((await ask('PUT', `/effects/${id}/picture?revision=1`, strToU8('no picture'))).status).toBe(422);
    expect((await ask('PUT', `/effects/${id}/picture`, png)).status).toBe(400);
    expect((await ask('PUT', `/effects/${id}/picture?revision=1`, png)).status).toBe(204);
    const picture = await fetch(`${base}/effects/${id}/picture`);
    expect(picture.headers.get('content-type')).toBe('image/png');
    expect(new Uint8Array(await picture.arrayBuffer())).toEqual(new Uint8Array(png));
  });

  it('keeps nothing of a transaction that fails half-way', async () => {
    const before = await count('projects');
    await expect(
      inTransaction(database, async (session) => {
        await session.query(`insert into projects (id, name) values (gen_random_uuid(), 'Half')`);
        throw new Error('half-way');
      }),
    ).rejects.toThrow('half-way');
    expect(await count('projects')).toBe(before);
  });

  it('says that the database is gone, and answers again when it is back', async () => {
    const name = (await database.query('select current_database() as name')).rows[0].name as string;
    const admin = connect(DATABASE_URL!);
    const lost = connect(DATABASE_URL!.replace(/\/\w+$/, '/nowhere').replace(/:\d+\//, ':1/'));
    const away = await serve(lost, pino({ level: 'silent' }), { ...DEFAULTS, port: 0 });
    const address = `http://127.0.0.1:${(away.server.address() as { port: number }).port}/api/projects`;
    const answer = await fetch(address);
    expect(answer.status).toBe(503);
    expect(((await answer.json()) as { sentence: string }).sentence).toContain('./jinx start');
    await away.stop();
    await lost.end();
    // Connections that are cut are replaced.
    await admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [name]);
    await admin.end();
    await expect.poll(async () => (await ask('GET', '/projects')).status).toBe(200);
  });

  it('says in JSON that there is nothing at an address', async () => {
    expect((await ask('GET', '/nowhere')).body.code).toBe('not-found');
    expect((await ask('GET', '/effects/not-an-id')).status).toBe(404);
  });

  it('refuses an effect whose figure the project does not have', async () => {
    const answer = await ask('POST', `/projects/${await makeProject('Eight')}/effects`, {
      document: lamplitMantle('f'.repeat(64)),
    });
    expect(answer.body.code).toBe('missing-asset');
  });
});
