import { stopCluster } from './database/cluster.mjs';
import { withLock } from './lock.mjs';
import { CLUSTER, runningServer, stopServer } from './start.mjs';

export const run = () =>
  withLock(async () => {
    const running = runningServer();
    if (running) await stopServer(running);
    const hadDatabase = await stopCluster(CLUSTER);
    console.log(running || hadDatabase ? 'Jinx has stopped.' : 'Jinx was not running.');
    return 0;
  });
