// Asks without end whether the server is well, in a thread of its own, and tells the longest wait for an answer.
import { request } from 'node:http';
import { parentPort, workerData } from 'node:worker_threads';

const EVERY_MILLISECONDS = 40;
const { port, address } = workerData;
let longest = 0;
let isOver = false;
/** A server that has died is counted by itself. */
const ask = () =>
  new Promise((done) => {
    const began = performance.now();
    const end = (isAnswer) => {
      if (isAnswer) longest = Math.max(longest, performance.now() - began);
      done();
    };
    const asked = request(
      {
        port,
        host: '127.0.0.1',
        localAddress: address,
        path: '/api/health',
        agent: false,
        headers: { Host: 'localhost' },
      },
      (response) => response.resume().once('end', () => end(true)),
    );
    asked.once('error', () => end(false));
    asked.end();
  });
parentPort.on('message', (message) => {
  if (message === 'reset') {
    parentPort.postMessage(longest);
    longest = 0;
  } else isOver = true;
});
while (!isOver) {
  await ask();
  await new Promise((later) => setTimeout(later, EVERY_MILLISECONDS));
}
process.exit(0);
