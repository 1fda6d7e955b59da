import { randomUUID } from 'node:crypto';
import { createServer } from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { WebSocket } from 'ws';
import { newEffect } from '@jinx/core/document';
import { accountOf, addPerson, deliver, Live } from './index.ts';
import { DATABASE_URL, TestServer } from './testing/testServer.ts';

describe.skipIf(!DATABASE_URL)('live sockets', () => {
  let server: TestServer;
  const cookies: Record<string, string> = {};
  let effectId = '';
  const PASSWORD = 'reeds at dusk';
  const as = (name: string, method: string, address: string, body?: unknown) =>
    server.ask(method, address, body, { Cookie: cookies[name]! });
  const signIn = async (name: string) => {
    const answer = await fetch(`${server.base}/session`, {
      method: 'POST',
      body: JSON.stringify({ name, password: PASSWORD }),
    });
    cookies[name] = answer.headers
      .getSetCookie()
      .map((cookie) => cookie.split(';')[0])
      .join('; ');
  };
  const open = (
    name: string,
  ): { socket: WebSocket; told: unknown[]; closed: Promise<number>; isOpen: Promise<boolean> } => {
    const address = `${server.base.replace('http', 'ws')}/effects/${effectId}/live?window=${randomUUID()}`;
    const socket = new WebSocket(address, { headers: { Cookie: cookies[name]! } });
    const told: unknown[] = [];
    socket.on('message', (data) => told.push(JSON.parse(String(data))));
    socket.on('error', () => undefined);
    return {
      socket,
      told,
      closed: new Promise((done) => socket.on('close', done)),
      isOpen: new Promise((done) => {
        socket.once('open', () => done(true));
        socket.once('close', () => done(false));
      }),
    };
  };
  beforeAll(async () => {
    server = await TestServer.start('jinx_live_test', { hasSignIn: true });
    for (const name of ['Sedge', 'Tallow', 'Bogling']) {
      await addPerson(server.database, name, PASSWORD);
      await signIn(name);
    }
    const project = (await as('Sedge', 'POST', '/projects', { name: 'Marsh' })).body.id;
    effectId = (await as('Sedge', 'POST', `/projects/${project}/effects`, { document: newEffect('Lamp', 5) })).body
      .id;
    for (const [name, role] of [
      ['Tallow', 'owner'],
      ['Bogling', 'viewer'],
    ])
      await as('Sedge', 'PUT', `/projects/${project}/members`, { name, role });
    projectId = project;
  });
  let projectId = '';
  afterAll(() => server.stop());

  it('are sixteen of one person, and their news come together', async () => {
    const windows = Array.from({ length: 20 }, () => open('Bogling'));
    const opened = await Promise.all(windows.map(({ isOpen }) => isOpen));
    expect(opened.filter(Boolean)).toHaveLength(16);
    await pause(400);
    for (const { told } of windows) expect(told.length).toBeLessThanOrEqual(6);
    const last = windows.find(({ told }) => told.length > 0)!.told.at(-1) as { others: unknown[] };
    expect(last.others).toHaveLength(15);
    for (const { socket } of windows) socket.terminate();
    await expect.poll(async () => (await server.connections()) < 8).toBe(true);
  });

  it('are closed by signing out, and by being taken out of the project', async () => {
    const [sedge, bogling] = [open('Sedge'), open('Bogling')];
    await Promise.all([sedge.isOpen, bogling.isOpen]);
    const members = (await as('Sedge', 'GET', `/projects/${projectId}/members`)).body.members;
    const { id } = members.find((one: { name: string }) => one.name === 'Bogling');
    await as('Sedge', 'DELETE', `/projects/${projectId}/members/${id}`);
    expect(await bogling.closed).toBe(4403);
    await as('Sedge', 'DELETE', '/session');
    expect(await sedge.closed).toBe(4403);
    await signIn('Sedge');
  });

  it('are cut off where they do not read what they are sent', () => {
    const acts: string[] = [];
    const socket = (bufferedAmount: number) => ({
      ...{ bufferedAmount, readyState: 1 as const, OPEN: 1 as const },
      send: () => void acts.push('send'),
      terminate: () => void acts.push('terminate'),
    });
    deliver(socket(1000), [{ kind: 'edit', revision: 2 }]);
    deliver(socket(100_000), [{ kind: 'edit', revision: 2 }]);
    expect(acts).toEqual(['send', 'terminate']);
  });

  it('are looked at anew with every heartbeat, as after a new password', async () => {
    let may = true;
    const live = new Live(50);
    const http = createServer().listen(0, '127.0.0.1');
    live.attach(
      http,
      () => true,
      async () => ({ name: '', owner: 'x', mayStill: async () => may }),
    );
    await new Promise((ready) => http.once('listening', ready));
    const { port } = http.address() as { port: number };
    const socket = new WebSocket(`ws://127.0.0.1:${port}/api/effects/${randomUUID()}/live?window=${randomUUID()}`);
    const closed = new Promise((done) => socket.on('close', done));
    await new Promise((ready) => socket.once('open', ready));
    await pause(200);
    expect(socket.readyState).toBe(socket.OPEN);
    may = false;
    expect(await closed).toBe(4403);
    live.close();
    http.close();
  });

  it('leave a project with an owner, also where two leave at once', async () => {
    for (let times = 0; times < 25; times++) {
      const made = (await as('Sedge', 'POST', '/projects', { name: `P${times}` })).body.id;
      await as('Sedge', 'PUT', `/projects/${made}/members`, { name: 'Tallow', role: 'owner' });
      await Promise.all(
        ['Sedge', 'Tallow'].map((name) => as(name, 'PUT', `/projects/${made}/members`, { name, role: 'viewer' })),
      );
      const owners = await server.database.query(`select 1 from members where project_id = $1 and role = 'owner'`, [
        made,
      ]);
      expect(owners.rowCount).toBeGreaterThanOrEqual(1);
    }
  });

  it('know a name however it is written, as the database does', async () => {
    await addPerson(server.database, 'Vi', PASSWORD);
    const keys = await Promise.all(
      ['Vi', 'vI', 'V\u0130'].map(async (name) => (await accountOf(server.database, name)).key),
    );
    // Whether it is taken for the same or not, it is counted as it is taken.
    const people = await Promise.all(
      ['Vi', 'vI', 'V\u0130'].map(async (name) => (await accountOf(server.database, name)).person?.id),
    );
    people.forEach((id, n) => expect(id === undefined || keys[n] === id).toBe(true));
    expect(keys[0]).toBe(keys[1]);
  });

  it('and sign-ins believe only the nearest proxy', async () => {
    const team = await TestServer.start('jinx_proxy_test', { hasSignIn: true, isBehindProxy: true });
    const statuses: number[] = [];
    for (let n = 0; n < 6; n++) {
      const headers = { 'X-Forwarded-For': `10.9.${n}.1, 192.0.2.7` };
      statuses.push((await team.ask('POST', '/session', { name: `nobody ${n}`, password: 'x' }, headers)).status);
    }
    expect(statuses).toEqual([403, 403, 403, 403, 403, 429]);
    const other = { 'X-Forwarded-For': '192.0.2.7, 192.0.2.8' };
    expect((await team.ask('POST', '/session', { name: 'nobody', password: 'x' }, other)).status).toBe(403);
    await team.stop();
  });
});
