import { spawn } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, readlinkSync, rmSync } from 'node:fs';
import path from 'node:path';
import { createInterface } from 'node:readline/promises';
import { build, fingerprint } from './build.mjs';
import { startCluster, stopCluster } from './database/cluster.mjs';
import { ensurePackages } from './install.mjs';
import { withLock } from './lock.mjs';
import {
  DATA,
  hasEnded,
  isListening,
  isRunning,
  openLog,
  portOf,
  ROOT,
  Sentence,
  signal,
  sleep,
  writeWhole,
} from './shell.mjs';

export const portForWeb = () => portOf('JINX_PORT', 7411);
/** Whose data it is that is started, backed up and restored. */
export const CLUSTER = process.env.JINX_CLUSTER ?? 'main';
export const portForDatabase = () => portOf('JINX_DATABASE_PORT', 7412);
/** Where the server is asked whether it answers: at the address it was told to open, if that is one. */
const HOST = /^(0\.0\.0\.0|::|)$/.test(process.env.JINX_HOST ?? '') ? '127.0.0.1' : process.env.JINX_HOST;
export const PID_FILE = path.join(DATA, 'server.json');
/** A server has this long to answer. */
const START_MILLISECONDS = 60_000;
/** A supervisor has this long to end, the server it keeps included. */
const STOP_MILLISECONDS = 14_000;

/** What a process was started as, where it works in this folder; null for all others. */
function ownCommand(pid) {
  try {
    if (readlinkSync(`/proc/${pid}/cwd`) !== ROOT || !isRunning(pid)) return null;
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0');
  } catch {
    return null;
  }
}
/** By the words of their commands; one that was started by an older Jinx too. */
const SERVERS = new Set(['server/dist/main.mjs', 'server/main.ts', 'scripts/supervisor.mjs']);
const isServer = (command) => command?.some((word) => SERVERS.has(word)) ?? false;

function stateIn(file) {
  try {
    const state = JSON.parse(readFileSync(file, 'utf8'));
    return Number.isInteger(state?.pid) ? state : null;
  } catch {
    return null;
  }
}

/** Processes that keep a server of this folder running; there is one, unless its file was lost. */
const supervisors = () =>
  readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name) && ownCommand(name)?.includes('scripts/supervisor.mjs'))
    .map(Number);

/**
 * The server this folder started, if it still runs. After a restart of the machine its number may be another program's, or
 * that of another folder's Jinx; and the file may be lost or empty, while the server runs.
 */
export function runningServer(file = PID_FILE) {
  const state = stateIn(file);
  if (state && isServer(ownCommand(state.pid))) return { settings: {}, ...state };
  if (existsSync(file)) rmSync(file, { force: true });
  const [pid] = file === PID_FILE ? supervisors() : [];
  return pid === undefined ? null : { pid, port: null, sources: null, settings: {} };
}

/** What the environment says of how Jinx is set up. */
export function settingsIn(environment) {
  const isElsewhere = /^JINX_(DATABASE_URL|ADDRESS|TEST_\w+)$/;
  return Object.fromEntries(
    Object.entries(environment)
      .filter(([name, value]) => name.startsWith('JINX_') && !isElsewhere.test(name) && value?.trim())
      .sort(([a], [b]) => (a < b ? -1 : 1)),
  );
}

/** What is otherwise in two setups, a line each. */
export function differences(was, is) {
  return [...new Set([...Object.keys(was), ...Object.keys(is)])]
    .sort()
    .filter((name) => was[name] !== is[name])
    .map((name) => `  ${name}: runs with ${was[name] ?? 'the default'}, asked for ${is[name] ?? 'the default'}`);
}

async function isAnswering(port, milliseconds = 2000) {
  const answer = await fetch(`http://${HOST}:${port}/api/ready`, {
    signal: AbortSignal.timeout(milliseconds),
  }).catch(() => null);
  return answer?.ok ?? false;
}

/** Waits until a server answers. Returns false when its process ends before, or it takes too long. */
export async function answers(port, pid) {
  for (const until = Date.now() + START_MILLISECONDS; Date.now() < until && isRunning(pid); await sleep(100))
    if (await isAnswering(port)) return true;
  return false;
}

/** Starts a process in the background that works in this folder. */
function inBackground(args, environment, stdio) {
  const child = spawn(process.execPath, args, {
    cwd: ROOT,
    detached: true,
    stdio,
    env: { ...process.env, ...environment },
  });
  child.unref();
  return child.pid;
}

const environmentOf = (port, databaseUrl) => ({
  JINX_PORT: String(port),
  JINX_DATABASE_URL: databaseUrl,
  JINX_INCOMING: process.env.JINX_INCOMING ?? path.join(DATA, 'incoming'),
});

async function mustAnswer(port, pid, log) {
  if (await answers(port, pid)) return pid;
  signal(pid, 'SIGTERM');
  if (!(await hasEnded(pid, STOP_MILLISECONDS))) signal(pid, 'SIGKILL');
  throw new Sentence(`The server did not start: ${lastWords(log) ?? `${log} says why.`}`);
}

/** Starts a server that nothing starts again, and waits until it answers: for tests. */
export async function serve(port, databaseUrl, logName) {
  const log = path.join(DATA, 'logs', logName);
  const file = openLog(log);
  const environment = environmentOf(port, databaseUrl);
  const pid = inBackground(['server/dist/main.mjs'], environment, ['ignore', file, file]);
  return mustAnswer(port, pid, log);
}

/** Starts the server with a supervisor that starts it again, and waits until it answers. */
export async function serveSupervised(port, databaseUrl, settings) {
  const log = path.join(DATA, 'logs', 'server.log');
  // The supervisor's own faults, before it has a log.
  const file = openLog(path.join(DATA, 'logs', 'supervisor.log'));
  const environment = { ...settings, ...environmentOf(port, databaseUrl) };
  const pid = inBackground(['scripts/supervisor.mjs', log], environment, ['ignore', file, file]);
  const sources = fingerprint(['server', 'core', 'demo']);
  writeWhole(PID_FILE, JSON.stringify({ pid, port, sources, settings }));
  return mustAnswer(port, pid, log);
}

/** The last sentence by which a server said why it ended by itself. */
function lastWords(log) {
  if (!existsSync(log)) return null;
  const lines = readFileSync(log, 'utf8').trim().split('\n').slice(-20).reverse();
  for (const line of lines)
    try {
      const { level, msg } = JSON.parse(line);
      if (level === 60 && /[.!]$/.test(msg)) return msg;
    } catch {
      // Not a line of ours, as what Node prints of a crash.
    }
  return null;
}

/** Ends the server that this folder started, and waits until it is gone, whatever it is at. */
export async function stopServer(running) {
  for (const pid of new Set([running.pid, ...supervisors()])) {
    const children = readChildren(pid);
    signal(pid, 'SIGTERM');
    // It finishes what it has begun first.
    if (!(await hasEnded(pid, STOP_MILLISECONDS))) signal(pid, 'SIGKILL');
    for (const child of children)
      if (isServer(ownCommand(child))) {
        signal(child, 'SIGKILL');
        await hasEnded(child, STOP_MILLISECONDS);
      }
    await hasEnded(pid, STOP_MILLISECONDS);
  }
  rmSync(PID_FILE, { force: true });
}

function readChildren(pid) {
  try {
    return readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean).map(Number);
  } catch {
    return [];
  }
}

/** Whether a running server is to be started anew with other settings. */
async function mayRestart(lines, isForced) {
  console.log(`Jinx is running with other settings:\n${lines.join('\n')}`);
  if (isForced) return true;
  if (!process.stdin.isTTY)
    throw new Sentence('Nothing was changed: ./jinx start --restart starts it anew with the settings asked for.');
  const lineReader = createInterface({ input: process.stdin, output: process.stdout });
  const answer = await lineReader.question('Start it anew with the settings asked for? [y/N] ');
  lineReader.close();
  return /^y(es)?$/i.test(answer.trim());
}

async function start(isForced) {
  const [port, databasePort, settings] = [portForWeb(), portForDatabase(), settingsIn(process.env)];
  ensurePackages();
  let running = runningServer();
  if (running?.port != null) {
    const lines = differences(running.settings, settings);
    if (lines.length > 0 && !(await mayRestart(lines, isForced))) {
      console.log('Nothing was changed.');
      return 1;
    }
    if (lines.length > 0) {
      await stopServer(running);
      running = null;
      await stopCluster(CLUSTER);
    }
  }
  build();
  const sources = fingerprint(['server', 'core', 'demo']);
  const isSame = running !== null && running.sources === sources && running.port === port;
  if (running && !isSame) await stopServer(running);
  // The database may be down under a server that runs.
  const url = await startCluster(CLUSTER, databasePort);
  if (isSame) {
    for (let tries = 0; tries < 3; tries++)
      if (await isAnswering(port, 5000)) {
        console.log(`Jinx is running: http://localhost:${port}/`);
        return 0;
      }
    console.log('The server does not answer: it is started anew.');
    await stopServer(running);
  }
  if (await isListening(port))
    throw new Sentence(`Port ${port} is taken: stop what uses it, or set JINX_PORT to a free one.`);
  await serveSupervised(port, url, settings).catch((error) => {
    rmSync(PID_FILE, { force: true });
    throw error;
  });
  console.log(`Jinx is ready: http://localhost:${port}/`);
  return 0;
}

export async function run(words = []) {
  const unknown = words.find((word) => word !== '--restart');
  if (unknown !== undefined) throw new Sentence(`./jinx start has no "${unknown}"; there is --restart.`);
  return withLock(() => start(words.includes('--restart')));
}
