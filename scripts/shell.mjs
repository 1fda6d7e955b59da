// Running programs, and telling people in a sentence what went wrong.
import { spawnSync } from 'node:child_process';
import {
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { createConnection } from 'node:net';
import { userInfo } from 'node:os';
import path from 'node:path';

export const ROOT = path.resolve(import.meta.dirname, '..');
export const DATA = path.join(ROOT, 'data');
/** Where the program of a package lies. */
export const bin = (name) => path.join(ROOT, 'node_modules', '.bin', name);

/** An error that is a sentence for the person at the keyboard, shown without a trace. */
export class Sentence extends Error {
  isSentence = true;
}

/** A log that is longer than this is put aside before it is written on; the one put aside before is gone then. */
const MOST_LOG_BYTES = 5 * 1024 * 1024;

/** Opens a log to write on. */
export function openLog(file) {
  mkdirSync(path.dirname(file), { recursive: true });
  if (existsSync(file) && statSync(file).size > MOST_LOG_BYTES) renameSync(file, `${file}.1`);
  return openSync(file, 'a', 0o600);
}

/** Runs a program to its end. Its output goes to the terminal, or to `log`; fails with `otherwise`. */
export function must(program, args, { otherwise, log, ...options } = {}) {
  const file = log ? openLog(log) : undefined;
  const stdio = file === undefined ? 'inherit' : ['ignore', file, file];
  const { status, error } = spawnSync(program, args, { cwd: ROOT, stdio, ...options });
  if (file !== undefined) closeSync(file);
  if (error || status !== 0) throw new Sentence(`${otherwise ?? `${program} failed`}${log ? ` (see ${log})` : ''}.`);
}

export const isRoot = () => process.getuid?.() === 0;

/** The name of a user, or the number where it has none. */
export function userName(uid) {
  const { stdout } = spawnSync('id', ['-nu', String(uid)], { encoding: 'utf8' });
  return stdout?.trim() || String(uid);
}

/**
 * Refuses to work on what belongs to another user: files made in it would be nobody's who has to use them. Nothing's owner
 * is ever changed.
 */
export function mustOwn(folder) {
  if (!existsSync(folder)) return;
  const { uid } = statSync(folder);
  if (uid === process.getuid()) return;
  const owner = userName(uid);
  throw new Sentence(
    `${folder} belongs to ${owner}, and this is ${userInfo().username}: run it as ${owner} (sudo -u ${owner} ./jinx …). Nothing was changed.`,
  );
}

/** Writes a file so that it is there as a whole or not at all. */
export function writeWhole(file, text, mode = 0o600) {
  mkdirSync(path.dirname(file), { recursive: true });
  const part = `${file}.${process.pid}.part`;
  writeFileSync(part, text, { mode });
  renameSync(part, file);
}

/** The number of a port out of the environment. */
export function portOf(variable, byDefault) {
  const text = process.env[variable]?.trim() || String(byDefault);
  if (/^\d{1,5}$/.test(text) && Number(text) >= 1 && Number(text) <= 65535) return Number(text);
  throw new Sentence(`${variable} is the number of a port, 1 to 65535; not "${text}".`);
}

/** Whether a process runs: one that has ended and is not yet waited for does not. */
export function isRunning(pid) {
  try {
    return !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'));
  } catch {
    return false;
  }
}

/** Waits until a process has ended; false when it has not by then. */
export async function hasEnded(pid, milliseconds) {
  for (let waited = 0; isRunning(pid); waited += 50) {
    if (waited >= milliseconds) return false;
    await sleep(50);
  }
  return true;
}

/** Sends a signal to a process; it may be gone already. */
export function signal(pid, name) {
  try {
    process.kill(pid, name);
  } catch (error) {
    if (error.code !== 'ESRCH') throw error;
  }
}

/** Whether something listens on a loopback port. */
export const isListening = (port) =>
  new Promise((resolve) => {
    const socket = createConnection({ host: '127.0.0.1', port });
    socket.once('connect', () => (socket.destroy(), resolve(true)));
    socket.once('error', () => resolve(false));
  });

export const sleep = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
