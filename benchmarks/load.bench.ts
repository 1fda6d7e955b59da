// How long a save takes while fifty people save twice a second, each with an effect of their own out of the demo's.
import { randomUUID } from 'node:crypto';
import { cpus } from 'node:os';
import { parseEffect, type Effect } from '@jinx/core/document';
import { dropCluster, startCluster } from '../scripts/database/cluster.mjs';
import { ServerProcess } from '../server/testing/serverProcess.ts';
import { median, rounded } from './figures.ts';

const PEOPLE = 50;
const SECONDS = 60;
const EVERY_MILLISECONDS = 500;
const CLUSTER = 'load';

interface Standing {
  revision: number;
  head: string;
}
const pause = (milliseconds: number) => new Promise<void>((later) => setTimeout(later, milliseconds));

const url = await startCluster(CLUSTER, 7434);
const server = new ServerProcess(7433, url);
const times: number[] = [];
let errors = 0;

async function ask<T>(method: string, path: string, body?: unknown): Promise<T> {
  const answer = await fetch(`${server.address}/api${path}`, {
    method,
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`${method} ${path} was answered ${answer.status}`);
  return (await answer.json()) as T;
}

/** Somebody who saves a change of one number, again and again, at their own moments. */
async function person(effectId: string, document: Effect, at: Standing, until: number): Promise<void> {
  const layer = document.layers.order[0]!;
  const path = ['layers', 'byId', layer, 'settings', 'births.rate', 'base'];
  let before: unknown = document.layers.byId[layer]!.settings['births.rate'].base;
  await pause(Math.random() * EVERY_MILLISECONDS);
  for (let n = 1; performance.now() < until; n++) {
    const began = performance.now();
    const after = { kind: 'fixed', value: n };
    const edit = { id: randomUUID(), changes: [{ path, before, after }], labels: [`rate ${n}`] };
    try {
      at = await ask<Standing>('POST', `/effects/${effectId}/edits`, {
        revision: at.revision,
        head: at.head,
        edits: [edit],
      });
      times.push(performance.now() - began);
      before = after;
    } catch {
      errors++;
    }
    await pause(Math.max(0, EVERY_MILLISECONDS - (performance.now() - began)));
  }
}

try {
  await server.start();
  const [project] = await ask<{ id: string }[]>('GET', '/projects');
  const { effects } = await ask<{ effects: { id: string }[] }>('GET', `/projects/${project!.id}`);
  const documents = await Promise.all(
    effects.map(async ({ id }) => parseEffect((await ask<{ document: unknown }>('GET', `/effects/${id}`)).document)),
  );
  const made: [string, Effect, Standing][] = [];
  for (let n = 0; n < PEOPLE; n++) {
    const document = documents[n % documents.length]!;
    const stored = await ask<Standing & { id: string }>('POST', `/projects/${project!.id}/effects`, { document });
    made.push([stored.id, document, stored]);
  }
  const until = performance.now() + SECONDS * 1000;
  await Promise.all(made.map(([id, document, at]) => person(id, document, at, until)));
  const sorted = [...times].sort((a, b) => a - b);
  const result = {
    benchmark: 'load',
    people: PEOPLE,
    saves: times.length,
    savesPerSecond: rounded(times.length / SECONDS),
    medianMs: rounded(median(times)),
    p99Ms: rounded(sorted[Math.floor(sorted.length * 0.99)]!),
    worstMs: rounded(sorted[sorted.length - 1]!),
    errors,
    cores: cpus().length,
  };
  console.log(
    `${PEOPLE} people saved ${result.saves} times in ${SECONDS} s: ${result.medianMs} ms at the median, ${result.p99Ms} at the 99th percentile, ${result.worstMs} at worst; ${errors} errors.`,
  );
  console.log(JSON.stringify(result));
} finally {
  await server.kill();
  await dropCluster(CLUSTER);
}
