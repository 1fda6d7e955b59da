import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { WebSocket } from 'ws';
import { newEffect } from '@jinx/core/document';
import { Buckets } from './access/buckets.ts';
import { ROUTES } from './routes/index.ts';
import { addPerson, Attempts, isPassword, settingsOf, SettingsError, storedPassword } from './index.ts';
import { DATABASE_URL, TestServer } from './testing/testServer.ts';

const PASSWORD = 'reeds at dusk';

describe.skipIf(!DATABASE_URL)('where people sign in', () => {
  let server: TestServer;
  const cookies: Record<string, string> = {};
  let projectId = '';
  let effectId = '';
  beforeAll(async () => {
    server = await TestServer.start('jinx_people_test', { hasSignIn: true });
    for (const name of ['Sedge', 'Tallow', 'Bogling', 'Moth']) {
      await addPerson(server.database, name, PASSWORD);
      cookies[name] = (await signIn(name, PASSWORD)).cookie;
    }
    projectId = (await as('Sedge', 'POST', '/projects', { name: 'Marsh' })).body.id;
    effectId = (await as('Sedge', 'POST', `/projects/${projectId}/effects`, { document: newEffect('Lamp', 5) })).body
      .id;
    await as('Sedge', 'PUT', `/projects/${projectId}/members`, { name: 'tallow', role: 'editor' });
    await as('Sedge', 'PUT', `/projects/${projectId}/members`, { name: 'Bogling', role: 'viewer' });
  });
  afterAll(() => server.stop());

  async function signIn(
    name: string,
    password: string,
  ): Promise<{ status: number; cookie: string; sentence: string }> {
    const answer = await fetch(`${server.base}/session`, {
      method: 'POST',
      body: JSON.stringify({ name, password }),
    });
    const { sentence } = (await answer.json()) as { sentence: string };
    return { status: answer.status, cookie: answer.headers.get('set-cookie') ?? '', sentence };
  }
  const as = (name: string, method: string, path: string, body?: unknown) =>
    server.ask(method, path, body, { Cookie: cookies[name]?.split(';')[0] ?? '' });

  it('keeps sessions in cookies that scripts cannot read and other pages cannot send', () => {
    expect(cookies['Sedge']).toMatch(/^jinx=[\w-]{40,}; /);
    expect(cookies['Sedge']).toMatch(/httponly/i);
    expect(cookies['Sedge']).toMatch(/samesite=strict/i);
  });

  it('answers nobody who has not signed in, but for what leads there and tells that it is well', async () => {
    const open: string[] = [];
    for (const { method, path } of ROUTES) {
      const address = path.replace(':id', effectId).replace(':hash', 'a'.repeat(64)).replace(/:\w+/g, '1');
      const { status } = await server.ask(method.toUpperCase(), address, method === 'get' ? undefined : {});
      if (status !== 401) open.push(`${method} ${path}`);
    }
    expect(open.sort()).toEqual(['delete /session', 'get /health', 'get /ready', 'get /session', 'post /session']);
  });

  it('shows a project to nobody who has no part in it', async () => {
    expect((await as('Moth', 'GET', '/projects')).body).toEqual([]);
    for (const path of [
      `/projects/${projectId}`,
      `/effects/${effectId}`,
      `/effects/${effectId}/revisions`,
      `/projects/${projectId}/members`,
    ])
      expect([path, (await as('Moth', 'GET', path)).status]).toEqual([path, 404]);
    expect((await as('Moth', 'DELETE', `/effects/${effectId}`)).status).toBe(404);
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    );
    const asset = (await as('Sedge', 'POST', `/projects/${projectId}/assets?name=x.png`, new Uint8Array(png))).body;
    expect(
      (await fetch(`${server.base}/assets/${asset.hash}`, { headers: { Cookie: cookies['Moth']!.split(';')[0]! } }))
        .status,
    ).toBe(404);
    expect(
      (
        await fetch(`${server.base}/assets/${asset.hash}`, {
          headers: { Cookie: cookies['Bogling']!.split(';')[0]! },
        })
      ).status,
    ).toBe(200);
  });

  it('lets viewers look, editors change, and owners decide; each by name', async () => {
    const { revision, head } = (await as('Bogling', 'GET', `/effects/${effectId}`)).body;
    const edit = () => ({
      revision,
      head,
      edits: [{ id: randomUUID(), changes: [{ path: ['seed'], before: 5, after: 6 }], labels: [] }],
    });
    const refused = await as('Bogling', 'POST', `/effects/${effectId}/edits`, edit());
    expect([refused.status, refused.body.code, refused.body.sentence]).toEqual([
      403,
      'role',
      'You may look at this project, not change it.',
    ]);
    expect((await as('Tallow', 'POST', `/effects/${effectId}/edits`, edit())).status).toBe(200);
    expect((await as('Bogling', 'GET', `/effects/${effectId}/revisions`)).body[0].by).toBe('Tallow');
    expect((await as('Tallow', 'DELETE', `/projects/${projectId}`)).status).toBe(403);
    expect(
      (await as('Tallow', 'PUT', `/projects/${projectId}/members`, { name: 'Moth', role: 'owner' })).status,
    ).toBe(403);
    const { role, members } = (await as('Tallow', 'GET', `/projects/${projectId}/members`)).body;
    expect([role, members.map((one: { name: string; role: string }) => `${one.name} ${one.role}`)]).toEqual([
      'editor',
      ['Bogling viewer', 'Sedge owner', 'Tallow editor'],
    ]);
  });

  it('never leaves a project without an owner', async () => {
    const last = await as('Sedge', 'PUT', `/projects/${projectId}/members`, { name: 'Sedge', role: 'viewer' });
    expect([last.status, last.body.code]).toEqual([422, 'owner']);
    expect((await as('Sedge', 'GET', `/projects/${projectId}/members`)).body.role).toBe('owner');
    expect(
      (await as('Sedge', 'PUT', `/projects/${projectId}/members`, { name: 'Nobody', role: 'editor' })).status,
    ).toBe(404);
  });

  it('tells those who have an effect open who else does, and lets nobody else listen', async () => {
    const listen = (cookie: string, headers: Record<string, string> = {}) =>
      new Promise<WebSocket | number>((done) => {
        const socket = new WebSocket(
          `${server.base.replace('http', 'ws')}/effects/${effectId}/live?window=${randomUUID()}`,
          {
            headers: { Cookie: cookie.split(';')[0]!, ...headers },
          },
        );
        socket.on('open', () => done(socket));
        socket.on('error', () => undefined);
        socket.on('unexpected-response', (_, answer) => done(answer.statusCode!));
      });
    const first = (await listen(cookies['Sedge']!)) as WebSocket;
    const heard: string[] = [];
    first.on('message', (data) => heard.push(String(data)));
    const second = (await listen(cookies['Tallow']!)) as WebSocket;
    await expect.poll(() => heard.some((text) => text.includes('"Tallow"'))).toBe(true);
    expect(await listen(cookies['Moth']!)).toBe(403);
    expect(await listen('')).toBe(403);
    expect(await listen(cookies['Sedge']!, { Origin: 'http://elsewhere.test' })).toBe(403);
    second.close();
    await expect.poll(() => heard[heard.length - 1]).toContain('"others":[]');
    first.close();
  });

  it('slows down whoever tries passwords, and says when to try again', async () => {
    for (let times = 0; times < 5; times++) {
      const wrong = await signIn('Moth', 'wrong, wrong');
      expect([wrong.status, wrong.sentence]).toEqual([403, 'The name or the password is not right.']);
    }
    const waiting = await signIn('Moth', PASSWORD);
    expect(waiting.status).toBe(429);
    expect(waiting.sentence).toMatch(/try again in \d+ s/);
  });

  it('forgets a session that is signed out', async () => {
    expect((await as('Tallow', 'GET', '/session')).body).toEqual({ hasSignIn: true, name: 'Tallow' });
    expect((await as('Tallow', 'DELETE', '/session')).status).toBe(204);
    expect((await as('Tallow', 'GET', '/projects')).status).toBe(401);
  });
});

describe('what keeps strangers out', () => {
  it('is that Jinx opens itself to others only where people sign in, and says how', () => {
    expect(settingsOf({})).toMatchObject({ host: '127.0.0.1', hasSignIn: false });
    const to = { JINX_HOST: '0.0.0.0' };
    expect(() => settingsOf(to)).toThrow(SettingsError);
    expect(() => settingsOf(to)).toThrow(/JINX_SIGN_IN=on/);
    expect(() => settingsOf({ ...to, JINX_SIGN_IN: 'on' })).toThrow(/JINX_NAMES/);
    const open = settingsOf({ ...to, JINX_SIGN_IN: 'on', JINX_NAMES: 'jinx.example, 10.0.0.7' });
    expect(open).toMatchObject({ hasSignIn: true, names: ['jinx.example', '10.0.0.7', '0.0.0.0'] });
    expect(() => settingsOf({ JINX_PORT: 'x' })).toThrow(/JINX_PORT/);
  });

  it('is a password that is stored so that it cannot be read', async () => {
    const stored = await storedPassword(PASSWORD);
    expect(stored).not.toContain(PASSWORD);
    expect(await storedPassword(PASSWORD)).not.toBe(stored);
    expect(await isPassword(PASSWORD, stored)).toBe(true);
    expect(await isPassword(`${PASSWORD}.`, stored)).toBe(false);
    await expect(storedPassword('short')).rejects.toThrow('10 to 200 letters');
  });

  it('is that each wrong password must be waited for longer, until a right one', () => {
    let now = 0;
    const attempts = new Attempts(() => now);
    const waits = () => {
      try {
        attempts.mustWait('Sedge');
        return 0;
      } catch (error) {
        return (error as { more: { seconds: number } }).more.seconds;
      }
    };
    const seconds = Array.from({ length: 8 }, () => {
      attempts.wrong('Sedge');
      const wait = waits();
      now += wait * 1000;
      return wait;
    });
    expect(seconds).toEqual([0, 0, 0, 0, 2, 4, 8, 16]);
    attempts.wrong('Sedge');
    attempts.right('Sedge');
    expect(waits()).toBe(0);
  });

  it('is that what is costly may be asked for only so often', () => {
    let now = 0;
    const buckets = new Buckets(60, () => now);
    for (let times = 0; times < 60; times++) buckets.take('Sedge');
    expect(() => buckets.take('Sedge')).toThrow(/try again in 1 s/);
    buckets.take('Tallow');
    now += 1000;
    buckets.take('Sedge');
    expect(() => buckets.take('Sedge')).toThrow();
  });
});
