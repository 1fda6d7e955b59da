// Runs everything: types, lint, format, units and server tests, e2e; or the tests of one name. Its last line counts them.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { build } from './build.mjs';
import { dropCluster, startCluster } from './database/cluster.mjs';
import { failedScreens, failedUnits, toldFailures } from './failures.mjs';
import { ensureBrowser, ensurePackages, ensureReaders, postgresPrograms } from './install.mjs';
import { bin, DATA, isListening, ROOT, Sentence } from './shell.mjs';
import { serve } from './start.mjs';

const PORT = Number(process.env.JINX_TEST_PORT ?? 7421);
/** Of the servers that e2e tests look at, one a worker. */
const WORKERS = Number(process.env.JINX_TEST_WORKERS ?? 2);
const PORTS = Array.from({ length: WORKERS }, (_, n) => PORT + 2 * n);
const DATABASE_PORT = Number(process.env.JINX_TEST_DATABASE_PORT ?? 7422);

const tally = { passed: 0, failed: 0 };
const failures = [];

/** One check that either holds or does not; what it prints is told when it ends. */
function check(name, program, args) {
  return new Promise((resolve) => {
    const child = spawn(program, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
    const printed = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => printed.push(part));
    child.on('close', (status) => {
      console.log(`\n— ${name}\n${Buffer.concat(printed)}`.trimEnd());
      tally[status === 0 ? 'passed' : 'failed']++;
      if (status !== 0) failures.push({ name, lines: [] });
      resolve();
    });
  });
}

/** The checks that need nothing running, two at a time: as many as the smallest machine has cores. */
async function checks() {
  const waiting = [
    // The longest first, so that both lanes end together.
    ['lint', bin('eslint'), ['.', '--max-warnings', '0']],
    ['types: web', bin('vue-tsc'), ['-p', 'web', '--noEmit']],
    ['types: stage, server, demo, tests', bin('tsc'), ['-p', '.']],
    ['format', bin('prettier'), ['--check', '--log-level', 'warn', '.', 'jinx']],
    ['types: core', bin('tsc'), ['-p', 'core']],
  ];
  const lane = async () => {
    for (let next = waiting.shift(); next; next = waiting.shift()) await check(...next);
  };
  await Promise.all([lane(), lane()]);
}

/** Runs a program that writes a report, and counts what `countsOf` finds in it. */
function suite({ name, report, countsOf, program, args, environment }) {
  console.log(`\n— ${name}`);
  const file = path.join(DATA, report);
  rmSync(file, { force: true });
  const { status } = spawnSync(bin(program), args(file), {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, ...environment },
  });
  const { passed, failed, told } = countsOf(existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null);
  // It may also fail by itself: without a report, or beside its tests.
  const isBroken = status !== 0 && !failed;
  tally.passed += passed;
  tally.failed += isBroken ? 1 : failed;
  failures.push(...(isBroken && told.length === 0 ? [{ name, lines: [] }] : told));
}

/** @param {{ files?: string[], title?: string }} only What is run; everything where nothing is said. */
const units = (environment, { files = [], title } = {}) =>
  suite({
    name: 'units and server',
    report: 'units.json',
    program: 'vitest',
    args: (file) => [
      'run',
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${file}`,
      ...(title ? ['-t', exactly(title)] : []),
      ...files,
    ],
    environment,
    countsOf: (report) => ({
      passed: report?.numPassedTests ?? 0,
      failed: report?.numFailedTests ?? 0,
      told: failedUnits(report),
    }),
  });

const e2e = (addresses, environment, { files = [], title } = {}) =>
  suite({
    name: 'e2e',
    report: 'e2e.json',
    program: 'playwright',
    args: () => ['test', ...(title ? ['-g', exactly(title)] : []), ...files],
    environment: { JINX_TEST_ADDRESSES: addresses.join(' '), ...environment },
    countsOf: (report) => ({
      passed: report?.stats?.expected ?? 0,
      failed: report?.stats?.unexpected ?? 0,
      told: failedScreens(report),
    }),
  });

/** Makes another database beside the one at an address. Returns its address. */
async function addDatabase(url, name) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(`create database ${name}`);
  await client.end();
  return url.replace(/\/\w+$/, `/${name}`);
}

/** A part of a title, as a pattern. */
const exactly = (text) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** The files with tests whose path has this in it. @throws Sentence where there is none. */
function filesOf(name) {
  const files = ['core', 'stage', 'player', 'web/src', 'server', 'demo', 'scripts', 'e2e']
    .flatMap((folder) => readdirSync(path.join(ROOT, folder), { recursive: true }).map((file) => `${folder}/${file}`))
    .filter((file) => /\.(test|spec)\.ts$/.test(file) && file.includes(name));
  if (files.length > 0) return files.sort();
  throw new Sentence(
    `No file with tests has “${name}” in its path; ./jinx test NAME runs those that have, as “stage.spec”.`,
  );
}

/** PostgreSQL and servers for as long as something runs. */
async function withServers(ports, work) {
  for (const port of [...ports, DATABASE_PORT])
    if (await isListening(port))
      throw new Sentence(
        `Port ${port}, meant for the tests, is taken: stop what uses it, or set JINX_TEST_PORT and JINX_TEST_DATABASE_PORT.`,
      );
  const pids = [];
  try {
    const url = await startCluster('test', DATABASE_PORT);
    /** A server and a database for each of the workers, so that none meets what another does. */
    const startServers = async () => {
      for (const [n, port] of ports.entries())
        pids.push(await serve(port, n === 0 ? url : await addDatabase(url, `worker${n}`), `test-server${n}.log`));
      return ports.map((port) => `http://localhost:${port}`);
    };
    await work({ JINX_TEST_DATABASE_URL: url }, startServers);
  } finally {
    for (const pid of pids) process.kill(pid, 'SIGTERM');
    await dropCluster('test');
  }
}

async function everything() {
  await checks();
  await withServers(PORTS, async (environment, startServers) => {
    units(environment);
    e2e(await startServers(), environment);
  });
}

/** The tests of some files; of them, those with `title` in their title. */
async function some(files, title) {
  const screens = files.filter((file) => file.startsWith('e2e/'));
  const others = files.filter((file) => !file.startsWith('e2e/'));
  // The others ask nothing but their own code.
  if (!files.some((file) => /^(server|scripts|e2e)\//.test(file))) return units({}, { files, title });
  await withServers(PORTS.slice(0, screens.length), async (environment, startServers) => {
    if (others.length > 0) units(environment, { files: others, title });
    if (screens.length > 0) e2e(await startServers(), environment, { files: screens, title });
  });
}

export async function run([name, ...title] = []) {
  ensurePackages();
  ensureBrowser();
  ensureReaders();
  postgresPrograms();
  // Asked for by a name that no file has, nothing is built.
  const files = name ? filesOf(name) : null;
  build();
  await (files ? some(files, title.join(' ')) : everything());
  if (failures.length) console.log(`\n${toldFailures(failures)}`);
  console.log(`\n${tally.passed} passed, ${tally.failed} failed`);
  return tally.failed === 0 && tally.passed > 0 ? 0 : 1;
}
