// Running programs, and telling people in a sentence what went wrong.
import { spawnSync } from 'node:child_process';
import { closeSync, mkdirSync, openSync } from 'node:fs';
import { createConnection } from 'node:net';
import path from 'node:path';

export const ROOT = path.resolve(import.meta.dirname, '..');
export const DATA = path.join(ROOT, 'data');

/** An error that is a sentence for the person at the keyboard, shown without a trace. */
export class Sentence extends Error {
  isSentence = true;
}

/** Runs a program to its end. Its output goes to the terminal, or to `log`; fails with `otherwise`. */
export function must(program, args, { otherwise, log, ...options } = {}) {
  let file;
  if (log) {
    mkdirSync(path.dirname(log), { recursive: true });
    file = openSync(log, 'a');
  }
  const stdio = file === undefined ? 'inherit' : ['ignore', file, file];
  const { status, error } = spawnSync(program, args, { cwd: ROOT, stdio, ...options });
  if (file !== undefined) closeSync(file);
  if (error || status !== 0) throw new Sentence(`${otherwise ?? `${program} failed`}${log ? ` (see ${log})` : ''}.`);
}

export const isRoot = () => process.getuid?.() === 0;

/** Whether something listens on a loopback port. */
export const isListening = (port) =>
  new Promise((resolve) => {
    const socket = createConnection({ host: '127.0.0.1', port });
    socket.once('connect', () => (socket.destroy(), resolve(true)));
    socket.once('error', () => resolve(false));
  });

export const sleep = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
