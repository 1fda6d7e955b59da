// What becomes of spoilt parcels, documents and images, half of them well-formed with exactly one lie.
import { cpus } from 'node:os';
import pg from 'pg';
import { dropCluster, startCluster } from '../scripts/database/cluster.mjs';
import { attackRun } from '../server/testing/attack/run.ts';
import { makeMaterials } from '../server/testing/hostile/materials.ts';
import { controls, hostileRun, sendTo } from '../server/testing/hostile/run.ts';
import { ServerProcess } from '../server/testing/serverProcess.ts';
import { rounded } from './figures.ts';

const asked = process.argv.find((argument) => argument.startsWith('--files='));
const FILES = asked ? Number(asked.slice('--files='.length)) : 10_000;
const [CLUSTER, ATTACKED] = ['hostile', 'attack'];
const isQuiet = process.argv.includes('--json');

/** A server of its own is attacked in every way that is known. */
async function attack() {
  try {
    return await attackRun(7446, await startCluster(ATTACKED, 7447), (sentence) => {
      if (!isQuiet) console.log(sentence);
    });
  } finally {
    await dropCluster(ATTACKED);
  }
}

const attacked = await attack();
const url = await startCluster(CLUSTER, 7438);
const server = new ServerProcess(7437, url);
const database = new pg.Pool({ connectionString: url });
try {
  await server.start();
  const base = `${server.address}/api`;
  const materials = await makeMaterials();
  const { id } = (await (
    await fetch(`${base}/projects`, { method: 'POST', body: '{"name":"Controls"}' })
  ).json()) as {
    id: string;
  };
  const answers = [];
  for (const sent of controls(materials)) answers.push((await sendTo(base, id, sent)).status);
  const outcome = await hostileRun(base, database, materials, FILES, 20262);
  await server.answers();
  const result = {
    benchmark: 'hostile',
    files: outcome.files,
    crashes: outcome.crashes.length,
    hangs: outcome.hangs.length,
    leftovers: outcome.leftovers.length,
    believed: outcome.believed.length,
    speechless: outcome.speechless.length,
    distinctRefusals: outcome.refusals.size,
    controlsTaken: answers.filter((status) => status < 300).length,
    attack: { ...attacked, blockedMs: rounded(attacked.blockedMs), peakMegabytes: rounded(attacked.peakMegabytes) },
    cores: cpus().length,
  };
  for (const kind of ['crashes', 'hangs', 'leftovers', 'believed', 'speechless'] as const)
    for (const what of outcome[kind].slice(0, 10)) console.log(`${kind}: ${what}`);
  if (!isQuiet)
    for (const [code, times] of [...outcome.refusals].sort()) console.log(`${String(times).padStart(6)}  ${code}`);
  console.log(
    `${result.files} spoilt files: ${result.crashes} crashes, ${result.hangs} over two seconds, ${result.leftovers} left something behind; ${result.distinctRefusals} distinct refusals; ${result.controlsTaken} of ${answers.length} untouched ones were taken in.`,
  );
  console.log(
    `${attacked.requests} raw requests and sockets: the server ended ${attacked.deaths} times, let ${Math.round(attacked.blockedMs)} ms be waited at worst, took ${Math.round(attacked.peakMegabytes)} MB at most; ${attacked.leaks} leaks.`,
  );
  console.log(JSON.stringify(result));
} finally {
  await database.end();
  await server.kill();
  await dropCluster(CLUSTER);
}
