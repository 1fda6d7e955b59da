import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { build, fingerprint } from './build.mjs';
import { startCluster } from './cluster.mjs';
import { ensurePackages } from './install.mjs';
import { DATA, isListening, ROOT, Sentence, sleep } from './shell.mjs';

export const PORT = Number(process.env.JINX_PORT ?? 7411);
/** Whose data it is that is started, backed up and restored. */
export const CLUSTER = process.env.JINX_CLUSTER ?? 'main';
export const DATABASE_PORT = Number(process.env.JINX_DATABASE_PORT ?? 7412);
/** Where the server is asked whether it answers: at the address it was told to open, if that is one. */
const HOST = /^(0\.0\.0\.0|::|)$/.test(process.env.JINX_HOST ?? '') ? '127.0.0.1' : process.env.JINX_HOST;
export const PID_FILE = path.join(DATA, 'server.json');

/** The server this folder started, if it still runs: after a restart of the machine its number may be another program's. */
export function runningServer(file = PID_FILE) {
  if (!existsSync(file)) return null;
  const state = JSON.parse(readFileSync(file, 'utf8'));
  const command = `/proc/${state.pid}/cmdline`;
  if (existsSync(command) && readFileSync(command, 'utf8').includes('server/main.ts')) return state;
  rmSync(file, { force: true });
  return null;
}

/** Starts the server in the background and waits until it answers. */
export async function serve(port, databaseUrl, logName) {
  const log = path.join(DATA, 'logs', logName);
  mkdirSync(path.dirname(log), { recursive: true });
  const file = openSync(log, 'a');
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    cwd: ROOT,
    detached: true,
    stdio: ['ignore', file, file],
    env: { ...process.env, JINX_PORT: String(port), JINX_DATABASE_URL: databaseUrl },
  });
  child.unref();
  let hasEnded = false;
  child.once('exit', () => (hasEnded = true));
  for (let tries = 0; tries < 300 && !hasEnded; tries++) {
    const answer = await fetch(`http://${HOST}:${port}/api/ready`).catch(() => null);
    if (answer?.ok) return child.pid;
    await sleep(100);
  }
  throw new Sentence(`The server did not start: ${lastWords(log) ?? `${log} says why.`}`);
}

/** What the server said last before it ended by itself, where that is a sentence. */
function lastWords(log) {
  const [line] = readFileSync(log, 'utf8').trim().split('\n').slice(-1);
  try {
    const { level, msg } = JSON.parse(line);
    return level === 60 ? msg : null;
  } catch {
    return null;
  }
}

/** Ends the server that this folder started, and waits until it is gone. */
export async function stopServer(running) {
  process.kill(running.pid, 'SIGTERM');
  // It finishes what it has begun first.
  for (let tries = 0; tries < 150 && runningServer(); tries++) await sleep(100);
  rmSync(PID_FILE, { force: true });
}

export async function run() {
  ensurePackages();
  build();
  const sources = fingerprint(['server', 'core', 'demo']);
  const running = runningServer();
  if (running?.sources === sources) {
    console.log(`Jinx is running: http://localhost:${running.port}/`);
    return 0;
  }
  if (running) await stopServer(running);
  if (await isListening(PORT))
    throw new Sentence(`Port ${PORT} is taken: stop what uses it, or set JINX_PORT to a free one.`);
  const url = await startCluster(CLUSTER, DATABASE_PORT);
  const pid = await serve(PORT, url, 'server.log');
  writeFileSync(PID_FILE, JSON.stringify({ pid, port: PORT, sources }));
  console.log(`Jinx is ready: http://localhost:${PORT}/`);
  return 0;
}
