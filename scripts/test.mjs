// Runs everything: types, lint, format, units and server tests, e2e. Its last line counts them all.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { build } from './build.mjs';
import { dropCluster, startCluster } from './cluster.mjs';
import { failedScreens, failedUnits, toldFailures } from './failures.mjs';
import { ensureBrowser, ensurePackages, postgresPrograms } from './install.mjs';
import { DATA, isListening, ROOT, Sentence } from './shell.mjs';
import { serve } from './start.mjs';

const bin = (name) => path.join(ROOT, 'node_modules', '.bin', name);
const PORT = Number(process.env.JINX_TEST_PORT ?? 7421);
const DATABASE_PORT = Number(process.env.JINX_TEST_DATABASE_PORT ?? 7422);

const tally = { passed: 0, failed: 0 };
const failures = [];

function check(name, program, args) {
  console.log(`\n— ${name}`);
  const { status } = spawnSync(program, args, { cwd: ROOT, stdio: 'inherit' });
  tally[status === 0 ? 'passed' : 'failed']++;
  if (status !== 0) failures.push({ name, lines: [] });
}

const read = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null);

function units(environment) {
  console.log('\n— units and server');
  const file = path.join(DATA, 'units.json');
  rmSync(file, { force: true });
  const { status } = spawnSync(
    bin('vitest'),
    ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${file}`],
    { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...environment } },
  );
  const result = read(file);
  tally.passed += result?.numPassedTests ?? 0;
  tally.failed += result?.numFailedTests ?? 0;
  if (status !== 0 && !result?.numFailedTests) tally.failed++;
  failures.push(...failedUnits(result));
}

function e2e(address) {
  console.log('\n— e2e');
  const file = path.join(DATA, 'e2e.json');
  rmSync(file, { force: true });
  const { status } = spawnSync(bin('playwright'), ['test'], {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, JINX_ADDRESS: address },
  });
  const result = read(file);
  const stats = result?.stats;
  tally.passed += stats?.expected ?? 0;
  tally.failed += stats?.unexpected ?? 0;
  if (status !== 0 && !stats?.unexpected) tally.failed++;
  failures.push(...failedScreens(result));
}

export async function run() {
  ensurePackages();
  ensureBrowser();
  postgresPrograms();
  build();
  check('types: core', bin('tsc'), ['-p', 'core']);
  check('types: stage, server, demo, tests', bin('tsc'), ['-p', '.']);
  check('types: web', bin('vue-tsc'), ['-p', 'web', '--noEmit']);
  check('lint', bin('eslint'), ['.', '--max-warnings', '0']);
  check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.', 'jinx']);
  for (const port of [PORT, DATABASE_PORT])
    if (await isListening(port))
      throw new Sentence(
        `Port ${port}, meant for the tests, is taken: stop what uses it, or set JINX_TEST_PORT and JINX_TEST_DATABASE_PORT.`,
      );
  let pid = 0;
  try {
    const url = await startCluster('test', DATABASE_PORT);
    units({ JINX_TEST_DATABASE_URL: url });
    pid = await serve(PORT, url, 'test-server.log');
    e2e(`http://localhost:${PORT}`);
  } finally {
    if (pid) process.kill(pid, 'SIGTERM');
    dropCluster('test');
  }
  if (failures.length) console.log(`\n${toldFailures(failures)}`);
  console.log(`\n${tally.passed} passed, ${tally.failed} failed`);
  return tally.failed === 0 && tally.passed > 0 ? 0 : 1;
}
