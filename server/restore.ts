// ./jinx restore: puts a backup in the place of what there is, all of it or nothing, while the server runs.
import { spawnSync } from 'node:child_process';
import { connect, migrate, NewerDatabase, type Database } from './database.ts';

const [file] = process.argv.slice(2) as [string];
const {
  JINX_ADMIN_URL: adminUrl,
  JINX_INCOMING: incoming,
  JINX_BEFORE: before,
  JINX_PG_RESTORE: program,
} = process.env as Record<string, string>;
const LIVE = 'jinx';

/** Brings the backup up in a database of its own, as new as this Jinx. */
async function bringUp(admin: Database): Promise<void> {
  await admin.query(`drop database if exists ${incoming} with (force)`);
  await admin.query(`create database ${incoming}`);
  const url = adminUrl!.replace(/\/\w+$/, `/${incoming}`);
  const { status, stderr } = spawnSync(program!, ['--no-owner', '--exit-on-error', `--dbname=${url}`, file], {
    encoding: 'utf8',
  });
  if (status !== 0) throw new Error(`The backup cannot be read: ${stderr.trim().slice(0, 500)}`);
  const database = connect(url);
  try {
    await migrate(database);
  } finally {
    await database.end();
  }
}

/** Lets both change places at one instant. What was there stays beside it until the next restore. */
async function change(admin: Database): Promise<void> {
  await admin.query(`drop database if exists ${before} with (force)`);
  const client = await admin.connect();
  try {
    // Whoever works meanwhile is cut off, and asks again: an answer that was given is in one of the two.
    for (let tries = 1; ; tries++) {
      await client.query(
        `select pg_terminate_backend(pid) from pg_stat_activity where datname in ('${LIVE}', '${incoming}') and pid <> pg_backend_pid()`,
      );
      try {
        await client.query('begin');
        await client.query(`alter database ${LIVE} rename to ${before}`);
        await client.query(`alter database ${incoming} rename to ${LIVE}`);
        await client.query('commit');
        return;
      } catch (error) {
        await client.query('rollback');
        if (tries === 50) throw error;
      }
    }
  } finally {
    client.release();
  }
}

const admin = connect(adminUrl!);
try {
  await bringUp(admin);
  await change(admin);
  console.log('Restored. What was there before is kept beside it until the next restore.');
} catch (error) {
  console.error(`${error instanceof NewerDatabase ? error.message : (error as Error).message}\nNothing was changed.`);
  process.exitCode = 1;
} finally {
  await admin.query(`drop database if exists ${incoming} with (force)`).catch(() => undefined);
  await admin.end();
}
