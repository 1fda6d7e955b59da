import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { encode } from 'fast-png';
import { collectionOf, newEffect, newLayer, type Effect } from '@jinx/core/document';
import { connect, migrate } from '../../database.ts';
import { addPerson } from '../../people/index.ts';
import { ServerProcess } from '../serverProcess.ts';
import { CASES, type Field } from './cases.ts';
import { Attacker, fieldOf, pause } from './client.ts';

export interface AttackOutcome {
  /** Raw requests and sockets. */
  readonly requests: number;
  /** How often the server ended. */
  readonly deaths: number;
  /** The longest that the health address let wait, in milliseconds. */
  readonly blockedMs: number;
  /** Peak memory of the server and its children together. */
  readonly peakMegabytes: number;
  /** Answers that the one who asked may not have; files and sockets that were left after ten seconds. */
  readonly leaks: number;
}

const PASSWORD = 'reeds at dusk';
const SIBLINGS = 60;
const LEFT_MILLISECONDS = 10_000;
/** Addresses of attackers without a cookie. */
const ADDRESSES = 24;

/** An effect as large as those that are made. */
function effectOf(layers: number): Effect {
  const effect = newEffect('Lamp', 1);
  effect.layers = collectionOf(Array.from({ length: layers }, (_, n) => [`l${n}`, newLayer(`Layer ${n}`, n)]));
  return effect;
}

/** Attacks a server of its own in every way that is known. @param heard hears of each case what it came to. */
export async function attackRun(
  port: number,
  databaseUrl: string,
  heard: (sentence: string) => void = () => undefined,
): Promise<AttackOutcome> {
  const incoming = mkdtempSync(path.join(tmpdir(), 'jinx-attack-'));
  const database = connect(databaseUrl, { isPatient: true });
  await migrate(database);
  for (const name of ['Sedge', 'Tallow', 'Bogling', 'Moth', 'Vi']) await addPerson(database, name, PASSWORD);
  await database.end();
  const document = effectOf(40);
  const server = new ServerProcess(port, databaseUrl, {
    JINX_SIGN_IN: 'on',
    JINX_INCOMING: incoming,
    JINX_CONNECTIONS: '256',
    JINX_CONNECTIONS_AN_ADDRESS: '32',
  });
  let deaths = 0;
  let peak = 0;
  const leaks: string[] = [];
  const watch = new Worker(new URL('./watch.mjs', import.meta.url), {
    workerData: { port, address: '127.0.0.200' },
  });
  const longestSince = () =>
    new Promise<number>((done) => {
      watch.once('message', done);
      watch.postMessage('reset');
    });
  try {
    await server.start();
    const attackers: Attacker[] = [];
    const attacker = (address: string, cookie = '') => {
      const made = new Attacker(port, address, cookie);
      attackers.push(made);
      return made;
    };
    const field = await prepare(port, attacker, document, (what) => leaks.push(what));
    await longestSince();
    let blockedMs = 0;
    for (const [name, work] of Object.entries(CASES)) {
      const began = performance.now();
      await work(field);
      const blocked = await longestSince();
      blockedMs = Math.max(blockedMs, blocked);
      const megabytes = peakMegabytes(server.pid);
      if (megabytes === null) {
        deaths++;
        await server.kill();
        await server.start();
      } else peak = Math.max(peak, megabytes);
      heard(
        `${name}: ${megabytes === null ? 'the server ended' : `waited ${Math.round(blocked)} ms, peak ${Math.round(megabytes)} MB`}, ${Math.round((performance.now() - began) / 1000)} s`,
      );
    }
    await pause(LEFT_MILLISECONDS);
    for (const file of readdirSync(incoming)) leaks.push(`the file ${file} was left`);
    for (let n = 0; n < openSockets(port); n++) leaks.push('a socket was left');
    for (const what of leaks) heard(`leak: ${what}`);
    const requests = attackers.reduce((sum, one) => sum + one.requests, 0);
    return { requests, deaths, blockedMs, peakMegabytes: peak, leaks: leaks.length };
  } finally {
    watch.postMessage('end');
    await server.kill();
    rmSync(incoming, { recursive: true, force: true });
  }
}

/** Signs people in, and makes a project that one owns, one changes and one looks at. */
async function prepare(
  port: number,
  attacker: (address: string, cookie?: string) => Attacker,
  document: Effect,
  leak: Field['leak'],
): Promise<Field> {
  const signIn = async (name: string): Promise<string> => {
    const answer = await fetch(`http://127.0.0.1:${port}/api/session`, {
      method: 'POST',
      body: JSON.stringify({ name, password: PASSWORD }),
    });
    return answer.headers
      .getSetCookie()
      .map((cookie) => cookie.split(';')[0])
      .join('; ');
  };
  const [owner, editor, viewer, outsider] = [
    attacker('127.0.0.11', await signIn('Sedge')),
    attacker('127.0.0.12', await signIn('Tallow')),
    attacker('127.0.0.13', await signIn('Bogling')),
    attacker('127.0.0.14', await signIn('Moth')),
  ];
  const make = async (path: string, body: unknown) => {
    const { status, text } = await owner.ask('POST', path, body);
    if (status >= 300 || status === 0) throw new Error(`${path} was answered ${status}: ${text.slice(0, 200)}`);
    const of = (name: string) => fieldOf(text, name);
    return { id: of('id'), revision: Number(of('revision')), head: of('head'), hash: of('hash') };
  };
  const { id: project } = await make('/projects', { name: 'Marsh' });
  for (const [name, role] of [
    ['Tallow', 'editor'],
    ['Bogling', 'viewer'],
  ])
    await owner.ask('PUT', `/projects/${project}/members`, { name, role });
  const picture = encode({ width: 8192, height: 4096, channels: 4, data: new Uint8Array(8192 * 4096 * 4).fill(7) });
  const { hash: asset } = await make(`/projects/${project}/assets?name=large.png`, picture);
  const shown = { ...document, dials: newEffect('x', 1).dials };
  shown.dials = {
    order: ['large'],
    byId: {
      large: {
        kind: 'picture',
        name: 'Large',
        standsFor: { asset, name: 'large' },
        shows: { asset, name: 'large' },
      },
    },
  };
  const effect = await make(`/projects/${project}/effects`, { document });
  const { id: followed } = await make(`/projects/${project}/effects`, { document: shown });
  for (let n = 0; n < SIBLINGS; n++) await make(`/effects/${followed}/siblings`, { name: `Sibling ${n}` });
  const nobody = attacker('127.0.0.10');
  const others = Array.from({ length: ADDRESSES }, (_, n) => attacker(`127.0.1.${n + 1}`));
  return {
    ...{ nobody, outsider, viewer, editor, owner, project, effect, document, followed, asset, leak },
    from: (n) => others[n % others.length]!,
  };
}

/** The peak memory of a process and its children, in megabytes; null when it has ended. */
function peakMegabytes(pid: number): number | null {
  try {
    const own = Number(/^VmHWM:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;
    const children = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean);
    return children.reduce((sum, child) => sum + (peakMegabytes(Number(child)) ?? 0), own);
  } catch {
    return null;
  }
}

/** Connections to a local port that its server still holds, but for those of the watch. */
function openSockets(port: number): number {
  const hexPort = port.toString(16).toUpperCase().padStart(4, '0');
  const watchAddress = 'C800007F';
  return readFileSync('/proc/net/tcp', 'utf8')
    .split('\n')
    .slice(1)
    .map((line) => line.trim().split(/\s+/))
    .filter(([, local, remote, state]) => {
      const isHeld = state === '01' || state === '08';
      return isHeld && local?.endsWith(`:${hexPort}`) && !remote?.startsWith(watchAddress);
    }).length;
}
