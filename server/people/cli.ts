// ./jinx people: lets people sign in, on the machine that serves.
import { createInterface } from 'node:readline';
import { Writable } from 'node:stream';
import { isPlainText } from '@jinx/core/document';
import { connect, inTransaction, migrate, type Database, type Session } from '../database.ts';
import { Refusal } from '../errors.ts';
import { addPerson, storedPassword } from './index.ts';

const USE = `Use: ./jinx people list
     ./jinx people add NAME
     ./jinx people password NAME
     ./jinx people remove NAME
A password is asked for, or read from what is piped in.`;

/** Asks for a password without showing it; reads a line where nobody is at the keyboard. */
function password(question: string): Promise<string> {
  const isTerminal = process.stdin.isTTY;
  if (isTerminal) process.stdout.write(question);
  const silent = new Writable({ write: (_chunk, _encoding, done) => done() });
  const lines = createInterface({ input: process.stdin, output: silent, terminal: isTerminal });
  return new Promise((done) =>
    lines.once('line', (line) => {
      lines.close();
      if (isTerminal) process.stdout.write('\n');
      done(line);
    }),
  );
}

async function removed(database: Session, name: string): Promise<string> {
  const { rows } = await database.query<{ id: string; name: string }>(
    'select id, name from people where lower(name) = lower($1)',
    [name],
  );
  if (!rows[0]) return missing(name);
  // Two owners who are removed at once must not both be seen to leave another behind.
  await database.query(
    'select 1 from projects where id in (select project_id from members where person_id = $1) order by id for update',
    [rows[0].id],
  );
  const owned = await database.query<{ name: string }>(
    `select projects.name from projects join members on project_id = projects.id
     where person_id = $1 and role = 'owner' and not exists
       (select 1 from members as other where other.project_id = projects.id and other.role = 'owner' and person_id <> $1)`,
    [rows[0].id],
  );
  if (owned.rows.length > 0)
    throw new Refusal(
      422,
      'owner',
      `${rows[0].name} is the only owner of ${owned.rows.map((row) => row.name).join(', ')}: name another owner there first.`,
    );
  await database.query('delete from people where id = $1', [rows[0].id]);
  return `${rows[0].name} can no longer sign in. What they made stays.`;
}
const missing = (name: string): never => {
  throw new Refusal(404, 'not-found', `There is nobody called ${name}.`);
};

async function changed(database: Database, name: string): Promise<string> {
  const stored = await storedPassword(await password(`New password of ${name}: `));
  const { rows } = await database.query<{ id: string; name: string }>(
    'update people set password = $2 where lower(name) = lower($1) returning id, name',
    [name, stored],
  );
  if (!rows[0]) return missing(name);
  await database.query('delete from sessions where person_id = $1', [rows[0].id]);
  return `${rows[0].name} has a new password, and is signed out everywhere.`;
}

async function run(database: Database, [act, ...words]: readonly string[]): Promise<string> {
  const name = words.join(' ').trim();
  if (act === 'list') {
    const { rows } = await database.query<{ name: string }>('select name from people order by name');
    return rows.length > 0 ? rows.map((row) => row.name).join('\n') : 'Nobody can sign in yet.';
  }
  if (!name || !['add', 'password', 'remove'].includes(act ?? '')) throw new Refusal(400, 'use', USE);
  if (act === 'add') {
    if (!isPlainText(name)) throw new Refusal(400, 'letters', 'A name has only characters that can be shown.');
    await addPerson(database, name.slice(0, 80), await password(`Password of ${name}: `));
    return `${name} can sign in now. Owners of a project decide what they may do there.`;
  }
  return act === 'remove' ? inTransaction(database, (session) => removed(session, name)) : changed(database, name);
}

const database = connect(process.env['JINX_DATABASE_URL']!, { isPatient: true });
try {
  await migrate(database);
  console.log(await run(database, process.argv.slice(2)));
} catch (error) {
  console.error(error instanceof Refusal ? error.message : error);
  process.exitCode = 1;
} finally {
  await database.end();
}
