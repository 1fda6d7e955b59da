import { stopCluster } from './cluster.mjs';
import { CLUSTER, runningServer, stopServer } from './start.mjs';

export async function run() {
  const running = runningServer();
  if (running) await stopServer(running);
  const hadDatabase = stopCluster(CLUSTER);
  console.log(running || hadDatabase ? 'Jinx has stopped.' : 'Jinx was not running.');
  return 0;
}
