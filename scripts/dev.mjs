// Serves for development: the page by Vite, which replaces in it what is edited, and the server, which starts anew at each
// change of its code. On ports and a cluster of its own, so that it stands beside ./jinx start and spoils nothing in it.
import { spawn } from 'node:child_process';
import { watch } from 'node:fs';
import path from 'node:path';
import { buildKernelsAndKit } from './build.mjs';
import { startCluster, stopCluster } from './database/cluster.mjs';
import { ensurePackages } from './install.mjs';
import { bin, isListening, portOf, ROOT, Sentence } from './shell.mjs';

const CLUSTER = 'dev';
const begin = (program, args, environment) =>
  spawn(program, args, {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...environment },
  });

/** Builds the kernels at each change of their code; the page loads them anew by itself. */
function watchKernels() {
  let timer;
  return watch(path.join(ROOT, 'core/kernels/assembly'), { recursive: true }, () => {
    clearTimeout(timer);
    timer = setTimeout(() => {
      try {
        buildKernelsAndKit();
      } catch (error) {
        // An error in the code: the next change builds again.
        console.error(error.message);
      }
    }, 200);
  });
}

export async function run() {
  const port = portOf('JINX_PORT', 7431);
  const databasePort = portOf('JINX_DATABASE_PORT', 7432);
  const serverPort = port + 2;
  ensurePackages();
  for (const each of [port, serverPort])
    if (await isListening(each))
      throw new Sentence(
        `Port ${each} is taken: stop what uses it, or set JINX_PORT; the server stands two above it.`,
      );
  buildKernelsAndKit();
  const url = await startCluster(CLUSTER, databasePort);
  const kernels = watchKernels();
  const server = begin(bin('tsx'), ['watch', '--clear-screen=false', 'server/main.ts'], {
    JINX_PORT: String(serverPort),
    JINX_DATABASE_URL: url,
  });
  const page = begin(bin('vite'), ['web', '--port', String(port), '--strictPort'], {
    JINX_ADDRESS: `http://localhost:${serverPort}`,
  });
  // Both end with this one, and it with either.
  const ended = [server, page].map((child) => new Promise((done) => child.once('exit', done)));
  const end = () => [server, page].forEach((child) => child.kill('SIGTERM'));
  for (const name of ['SIGINT', 'SIGTERM']) process.once(name, end);
  await Promise.race(ended);
  end();
  kernels.close();
  await Promise.all(ended);
  await stopCluster(CLUSTER);
  return 0;
}
