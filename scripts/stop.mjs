import { rmSync } from 'node:fs';
import { stopCluster } from './cluster.mjs';
import { sleep } from './shell.mjs';
import { PID_FILE, runningServer } from './start.mjs';

export async function run() {
  const running = runningServer();
  if (running) {
    process.kill(running.pid, 'SIGTERM');
    for (let tries = 0; tries < 50 && runningServer(); tries++) await sleep(100);
    rmSync(PID_FILE, { force: true });
  }
  const hadDatabase = stopCluster('main');
  console.log(running || hadDatabase ? 'Jinx has stopped.' : 'Jinx was not running.');
  return 0;
}
