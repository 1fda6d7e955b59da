// Keeps a server running: starts it again when it ends by itself, and gives up when that does not help.
//   node scripts/supervisor.mjs LOG [COMMAND...]
import { spawn } from 'node:child_process';
import { closeSync, openSync } from 'node:fs';
import path from 'node:path';
import { createStream } from 'rotating-file-stream';

/** The server says by this that starting it again would be of no use. */
const NO_USE = 78;
const MOST_ENDS = 5;
const WITHIN_MILLISECONDS = 60_000;
const FIRST_WAIT_MILLISECONDS = 1000;
/** A server that is asked to end has this long. */
const END_MILLISECONDS = 12_000;

const [file, ...command] = process.argv.slice(2);
// It is there, and its owner's alone, before the stream opens it.
closeSync(openSync(file, 'a', 0o600));
const log = createStream(path.basename(file), { path: path.dirname(file), size: '10M', rotate: 5 });
// A full disk must not end what keeps the server running.
log.on('error', () => undefined);
const say = (level, msg) => log.write(`${JSON.stringify({ level, time: Date.now(), pid: process.pid, msg })}\n`);

let child = null;
let isOver = false;
let timer;
const ends = [];

function start() {
  const [program, ...args] = command.length > 0 ? command : [process.execPath, 'server/dist/main.mjs'];
  // By the fourth, the server notices when this process is killed.
  child = spawn(program, args, { stdio: ['ignore', 'pipe', 'pipe', 'ipc'] });
  for (const stream of [child.stdout, child.stderr]) stream.pipe(log, { end: false });
  child.once('error', (error) => say(50, `the server could not be started: ${error.message}`));
  child.once('close', (code, signal) => ended(code ?? signal));
}

function ended(how) {
  child = null;
  if (isOver) return finish(0);
  if (how === NO_USE) return finish(NO_USE);
  const now = performance.now();
  ends.push(now);
  const recent = ends.filter((at) => now - at < WITHIN_MILLISECONDS).length;
  if (recent >= MOST_ENDS) {
    say(60, `The server ended ${recent} times in a minute and is not started again: this log says why.`);
    return finish(1);
  }
  const wait = FIRST_WAIT_MILLISECONDS * 2 ** (recent - 1);
  say(50, `the server ended (${how}); it is started again in ${wait / 1000} s`);
  timer = setTimeout(start, wait);
}

function finish(code) {
  log.end(() => process.exit(code));
}

function end() {
  isOver = true;
  clearTimeout(timer);
  if (!child) return finish(0);
  child.kill('SIGTERM');
  setTimeout(() => child?.kill('SIGKILL'), END_MILLISECONDS).unref();
}
process.on('SIGTERM', end);
process.on('SIGINT', end);
// A terminal that is closed does not end it.
process.on('SIGHUP', () => undefined);
start();
