// Puts a backup in the place of what there is: all of it, or nothing.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { buildServer } from '../build.mjs';
import { access, ask, DATABASE, databaseUrl, OWNER, startCluster } from './cluster.mjs';
import { ensurePackages, postgresPrograms } from '../install.mjs';
import { withLock } from '../lock.mjs';
import { ROOT, Sentence } from '../shell.mjs';
import { CLUSTER, portForDatabase, runningServer, serveSupervised, stopServer } from '../start.mjs';

/** What is restored stands in a database of its own until it is whole and brought up to date; then both change places. */
const [INCOMING, BEFORE] = ['jinx_incoming', 'jinx_before'];
/** A statement that drops or renames a large database may take this long. */
const PATIENT_MILLISECONDS = 120_000;
/** Any number: it keeps two restores from renaming at once. */
const LOCK = 7412;

const unchanged = (why) => new Sentence(`${why.trim()}\nNothing was changed.`);

function mustBeOurs(file) {
  const listed = spawnSync(path.join(postgresPrograms(), 'pg_restore'), ['--list', file], { encoding: 'utf8' });
  const isOurs = ['projects', 'effects', 'edits', 'migrations'].every((table) =>
    listed.stdout.includes(`TABLE DATA public ${table} `),
  );
  if (listed.status !== 0 || !isOurs) throw unchanged(`${file} is no backup of Jinx, or was cut short.`);
}

function dropIncoming(port) {
  return ask(CLUSTER, port, `drop database if exists ${INCOMING} with (force)`, {
    isAlone: true,
    timeout: PATIENT_MILLISECONDS,
  });
}

/** Brings the backup up in a fresh database, as a role that can do nothing beside it, and as new as this Jinx. */
function bringUp(file, port) {
  for (const made of [
    dropIncoming(port),
    ask(CLUSTER, port, `create database ${INCOMING} owner ${OWNER}`, { isAlone: true }),
  ])
    if (!made.isDone) throw unchanged(made.error);
  const { args, env } = access(CLUSTER, port, OWNER, INCOMING);
  const { status, stderr } = spawnSync(
    path.join(postgresPrograms(), 'pg_restore'),
    ['--no-owner', '--no-privileges', '--exit-on-error', ...args, file],
    { encoding: 'utf8', env },
  );
  if (status !== 0) throw unchanged(`The backup cannot be read: ${stderr.trim().slice(0, 500)}`);
  const migrated = spawnSync(process.execPath, ['server/dist/bringUp.mjs'], {
    cwd: ROOT,
    encoding: 'utf8',
    env: { ...process.env, JINX_DATABASE_URL: databaseUrl(CLUSTER, port, INCOMING) },
  });
  if (migrated.status !== 0) throw unchanged(migrated.stderr);
}

/** Renames databases in one transaction, while nobody is connected to any of them. */
function rename(port, pairs) {
  const all = [...new Set(pairs.flat())].map((name) => `'${name}'`).join(', ');
  const allow = (may) =>
    `select format('alter database %I allow_connections ${may}', datname) from pg_database where datname in (${all}) \\gexec\n`;
  const renamed = ask(
    CLUSTER,
    port,
    `select pg_advisory_lock(${LOCK});
     ${allow(false)}
     select pg_terminate_backend(pid) from pg_stat_activity where datname in (${all});
     do $$ begin
       for tries in 1..200 loop
         perform pg_stat_clear_snapshot();
         exit when not exists (select 1 from pg_stat_activity where datname in (${all}));
         perform pg_sleep(0.05);
       end loop;
     end $$;
     begin;
     ${pairs.map(([from, to]) => `alter database ${from} rename to ${to};`).join('\n')}
     commit;
     ${allow(true)}`,
    { isAlone: true, timeout: PATIENT_MILLISECONDS },
  );
  // Where it was cut short, all may connect again.
  if (!renamed.isDone) ask(CLUSTER, port, allow(true), { isAlone: true });
  return renamed;
}

async function restore(file) {
  mustBeOurs(file);
  ensurePackages();
  buildServer();
  const port = Number(new URL(await startCluster(CLUSTER, portForDatabase())).port);
  try {
    bringUp(path.resolve(file), port);
    const running = runningServer();
    const isOurs = running !== null && (running.settings.JINX_CLUSTER ?? 'main') === CLUSTER;
    if (isOurs) await stopServer(running);
    const serve = () => serveSupervised(running.port ?? 7411, databaseUrl(CLUSTER, port, DATABASE), running.settings);
    ask(CLUSTER, port, `drop database if exists ${BEFORE} with (force)`, {
      isAlone: true,
      timeout: PATIENT_MILLISECONDS,
    });
    const renamed = rename(port, [
      [DATABASE, BEFORE],
      [INCOMING, DATABASE],
    ]);
    if (!renamed.isDone) {
      if (isOurs) await serve();
      throw unchanged(renamed.error);
    }
    if (isOurs)
      try {
        await serve();
      } catch (error) {
        // The server does not answer with it: what was there comes back.
        const back = rename(port, [
          [DATABASE, INCOMING],
          [BEFORE, DATABASE],
        ]);
        if (!back.isDone)
          throw new Sentence(
            `${error.message}\nWhat was there before stands in the database ${BEFORE}: ${back.error}`,
          );
        await serve();
        throw unchanged(error.message);
      }
    console.log('Restored. What was there before is kept beside it until the next restore.');
    return 0;
  } finally {
    dropIncoming(port);
  }
}

export async function run([file]) {
  if (!file || !existsSync(file))
    throw new Sentence(`Out of which file? ./jinx restore FILE${file ? ` (there is no ${file})` : ''}`);
  return withLock(() => restore(file));
}
