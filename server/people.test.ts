import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { WebSocket } from 'ws';
import { newEffect } from '@jinx/core/document';
import { costlyLimit } from './access/costly.ts';
import { networkOf } from './access/network.ts';
import { ROUTES } from './routes/index.ts';
import { addPerson, Attempts, isPassword, settingsOf, SettingsError, storedPassword, type Try } from './index.ts';
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
    cookie = '',
  ): Promise<{ status: number; cookie: string; sentence: string }> {
    const answer = await fetch(`${server.base}/session`, {
      method: 'POST',
      headers: { Cookie: cookie },
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
    // Her own browser is not held up by that.
    const browser = cookies['Moth']!.match(/jinx-browser=[^;]+/)![0];
    expect((await signIn('Moth', PASSWORD, browser)).status).toBe(200);
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

  it('is that a setting is refused that is not understood: nothing is opened by a slip', () => {
    for (const wrong of ['true', 'yes', '1', 'ON', 'on please'])
      expect(() => settingsOf({ JINX_SIGN_IN: wrong })).toThrow(/JINX_SIGN_IN is on or off/);
    expect(settingsOf({ JINX_SIGN_IN: 'off' }).hasSignIn).toBe(false);
    expect(() => settingsOf({ JINX_SIGNIN: 'on' })).toThrow(/JINX_SIGNIN is no setting/);
    for (const [name, value] of [
      ['JINX_PORT', 'abc'],
      ['JINX_PORT', '0x50'],
      ['JINX_PORT', '70000'],
      ['JINX_HOST', 'two words'],
      ['JINX_BEHIND_PROXY', 'true'],
      ['JINX_COSTLY_A_MINUTE', '0'],
      ['JINX_CONNECTIONS', '-1'],
      ['JINX_CONNECTIONS_AN_ADDRESS', 'many'],
      ['JINX_GIGABYTES', '1.5'],
      ['JINX_GIGABYTES_A_PROJECT', ' x'],
    ] as const)
      expect(() => settingsOf({ [name]: value }), `${name}=${value}`).toThrow(new RegExp(`${name} is .*not`));
    expect(() => settingsOf({ JINX_SIGN_IN: 'on', JINX_NAMES: 'http://jinx.example' })).toThrow(/JINX_NAMES/);
  });

  it('is that names and a proxy are told only to a server where people sign in', () => {
    expect(() => settingsOf({ JINX_NAMES: 'jinx.example' })).toThrow(/JINX_NAMES is for a server that others reach/);
    expect(() => settingsOf({ JINX_BEHIND_PROXY: 'on' })).toThrow(/JINX_BEHIND_PROXY is for/);
    expect(settingsOf({ JINX_BEHIND_PROXY: 'on', JINX_SIGN_IN: 'on' }).isBehindProxy).toBe(true);
  });

  it('is a password that is stored so that it cannot be read', async () => {
    const stored = await storedPassword(PASSWORD);
    expect(stored).not.toContain(PASSWORD);
    expect(await storedPassword(PASSWORD)).not.toBe(stored);
    expect(await isPassword(PASSWORD, stored)).toBe(true);
    expect(await isPassword(`${PASSWORD}.`, stored)).toBe(false);
    await expect(storedPassword('short')).rejects.toThrow('10 to 200 letters');
  });

  const waitsOf = (attempts: Attempts, attempt: Try) => {
    try {
      return { delay: attempts.begin(attempt), seconds: 0 };
    } catch (error) {
      return { delay: 0, seconds: (error as { more: { seconds: number } }).more.seconds };
    }
  };
  const from = (network: string, person = 'Sedge', browser: string | null = null): Try => ({
    network,
    person,
    browser,
  });

  it('is that a network that guesses waits twice as long each time, up to a quarter of an hour', () => {
    let now = 0;
    const attempts = new Attempts(() => now);
    const seconds: number[] = [];
    for (let times = 0; seconds.length < 12; times++) {
      // Another person each time: it is the network that is counted.
      const { seconds: wait } = waitsOf(attempts, from('10.0.0.7', `person ${times}`));
      if (wait > 0) seconds.push(wait);
      now += wait * 1000;
    }
    expect(seconds).toEqual([2, 4, 8, 16, 32, 64, 128, 256, 512, 900, 900, 900]);
  });

  it('is that a person can be slowed by others, and never locked out', () => {
    const attempts = new Attempts(() => 0);
    const delays = Array.from({ length: 40 }, (_, n) => waitsOf(attempts, from(`10.0.0.${n}`)));
    expect(delays.map(({ delay }) => delay)).toEqual([0, 0, 0, 0, 250, 500, 1000, ...Array(33).fill(2000)]);
    expect(delays.every(({ seconds }) => seconds === 0)).toBe(true);
  });

  it('is that a browser that signed in before has a count of its own', () => {
    const attempts = new Attempts(() => 0);
    for (let times = 0; times < 5; times++) waitsOf(attempts, from('10.0.0.7'));
    expect(waitsOf(attempts, from('10.0.0.7')).seconds).toBe(2);
    expect(waitsOf(attempts, from('10.0.0.7', 'Sedge', 'known'))).toEqual({ delay: 0, seconds: 0 });
    for (let times = 0; times < 4; times++) waitsOf(attempts, from('10.0.0.8', 'Sedge', 'known'));
    expect(waitsOf(attempts, from('10.0.0.9', 'Sedge', 'known')).seconds).toBe(2);
  });

  it('is that a right password of one does not clear the wrong ones of the same network', () => {
    const attempts = new Attempts(() => 0);
    for (let times = 0; times < 4; times++) waitsOf(attempts, from('10.0.0.7', 'Tallow'));
    const own = from('10.0.0.7', 'Moth');
    expect(waitsOf(attempts, own).seconds).toBe(0);
    attempts.succeed(own);
    waitsOf(attempts, from('10.0.0.7', 'Tallow'));
    expect(waitsOf(attempts, from('10.0.0.7', 'Tallow')).seconds).toBe(2);
  });

  it('is that a line counts as one, however many addresses it has', () => {
    expect(networkOf('2001:db8:1:2:aaaa::1')).toBe(networkOf('2001:0db8:1:2::ffff'));
    expect(networkOf('2001:db8:1:2::1')).not.toBe(networkOf('2001:db8:1:3::1'));
    expect([networkOf('::ffff:10.0.0.7'), networkOf('10.0.0.7')]).toEqual(['10.0.0.7', '10.0.0.7']);
    expect(networkOf('::1')).toBe('0:0:0:0::/64');
  });

  it('is that what is costly may be asked for only so often', async () => {
    const take = costlyLimit(60);
    for (let times = 0; times < 60; times++) await take('Sedge');
    await expect(take('Sedge')).rejects.toThrow(/try again in \d+ s/);
    await take('Tallow');
  });

  it('is not thrown off by a clock that is set back', async () => {
    vi.useFakeTimers({ now: 1_700_000_000_000, toFake: ['Date', 'setTimeout', 'clearTimeout'] });
    const take = costlyLimit(1);
    await take('Sedge');
    vi.setSystemTime(Date.now() - 24 * 3600_000);
    await expect(take('Sedge')).rejects.toMatchObject({ more: { seconds: 60 } });
    await vi.advanceTimersByTimeAsync(60_000);
    await take('Sedge');
    const attempts = new Attempts();
    for (let times = 0; times < 5; times++) waitsOf(attempts, from('10.0.0.7'));
    vi.setSystemTime(Date.now() - 24 * 3600_000);
    expect(waitsOf(attempts, from('10.0.0.7')).seconds).toBe(2);
    vi.useRealTimers();
  });
});
