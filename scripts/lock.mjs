// One command at a time works on a folder's data.
import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { DATA, mustOwn, Sentence } from './shell.mjs';

const WAIT_SECONDS = 180;

/** The system's own lock on a file, held by a helper that ends with this process: nothing is left behind by a kill. */
function lock(file, seconds) {
  const held = 'echo held; exec cat > /dev/null';
  const helper = spawn('flock', ['-w', String(seconds), file, 'sh', '-c', held], {
    stdio: ['pipe', 'pipe', 'inherit'],
  });
  return new Promise((resolve, fail) => {
    helper.once('error', fail);
    helper.stdout.once('data', () => resolve(helper));
    helper.once('exit', () => resolve(null));
  });
}

/** Runs `work` while no other command that changes this folder's data runs. */
export async function withLock(work) {
  mustOwn(DATA);
  mkdirSync(DATA, { recursive: true });
  const file = path.join(DATA, 'jinx.lock');
  let helper = await lock(file, 0);
  if (!helper) {
    console.log('Another ./jinx works on this folder: waiting for it.');
    helper = await lock(file, WAIT_SECONDS);
  }
  if (!helper)
    throw new Sentence(`Another ./jinx still works on this folder after ${WAIT_SECONDS} s: wait for it, or end it.`);
  try {
    return await work();
  } finally {
    helper.stdin.end();
  }
}
