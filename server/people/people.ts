import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { role, type Members, type Role } from '@jinx/core/answers';
import type { Database, Session } from '../database.ts';
import { Refusal } from '../errors.ts';
import { isPassword, storedPassword } from './password.ts';

export interface Person {
  readonly id: string;
  readonly name: string;
}

/** What somebody may do in a project, from the least: look, change, and decide who else may. */
const RANK: readonly Role[] = role.options;
export const mayAs = (has: Role, needed: Role): boolean => RANK.indexOf(has) >= RANK.indexOf(needed);

const SESSION_DAYS = 30;
const hashed = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Lets somebody sign in from now on. @throws Refusal when the name is taken, or the password too short. */
export async function addPerson(session: Session, name: string, password: string): Promise<Person> {
  const id = randomUUID();
  const { rowCount } = await session.query(
    'insert into people (id, name, password) values ($1, $2, $3) on conflict do nothing',
    [id, name, await storedPassword(password)],
  );
  if (rowCount === 0) throw new Refusal(409, 'name-taken', `There is somebody called ${name} already.`);
  await adopt(session);
  return { id, name };
}

/** Projects that nobody owns, as those from before people signed in, are the first person's. */
export async function adopt(session: Session): Promise<void> {
  await session.query(
    `insert into members (project_id, person_id, role)
     select projects.id, first.id, 'owner'
     from projects, (select id from people order by created_at, id limit 1) as first
     where not exists (select 1 from members where project_id = projects.id and role = 'owner')
     on conflict (project_id, person_id) do update set role = 'owner'`,
  );
}

/** A hash to compare with where there is nobody of a name, so that it takes as long to say so. */
let nobody: Promise<string> | null = null;

/** Who is meant by a name at the sign-in. */
export interface Account {
  /** How tries at it are counted: the same for every way of writing the name. */
  readonly key: string;
  /** Null where there is nobody of that name. */
  readonly person: (Person & { readonly password: string }) | null;
}

export async function accountOf(session: Session, name: string): Promise<Account> {
  const { rows } = await session.query<{ folded: string; id: string | null; name: string; password: string }>(
    `select lower($1) as folded, people.id, people.name, people.password
     from (select 1) as one left join people on lower(people.name) = lower($1)`,
    [name],
  );
  const { folded, id, ...rest } = rows[0]!;
  return id === null ? { key: `nobody ${folded}`, person: null } : { key: id, person: { id, ...rest } };
}

/** What the cookies of somebody who signed in hold. */
export interface SignedIn extends Person {
  readonly token: string;
  /** By which this browser is known at the next sign-in. */
  readonly browser: string;
}

/** Signs somebody in. Returns null where name or password are wrong. */
export async function signIn(
  database: Database,
  { person }: Account,
  password: string,
  browser: string | null,
): Promise<SignedIn | null> {
  nobody ??= storedPassword(randomBytes(16).toString('hex'));
  const isRight = await isPassword(password, person?.password ?? (await nobody));
  if (!person || !isRight) return null;
  const token = randomBytes(32).toString('base64url');
  await database.query(
    `with old as (delete from sessions where expires_at < now())
     insert into sessions (token, person_id, expires_at) values ($1, $2, now() + $3::interval)`,
    [hashed(token), person.id, `${SESSION_DAYS} days`],
  );
  return { id: person.id, name: person.name, token, browser: browser ?? (await rememberBrowser(database, person)) };
}

const MOST_BROWSERS = 20;
async function rememberBrowser(database: Database, { id }: Person): Promise<string> {
  const browser = randomBytes(32).toString('base64url');
  await database.query(
    `with old as (delete from browsers where token in
       (select token from browsers where person_id = $2 order by known_since desc offset ${MOST_BROWSERS - 1}))
     insert into browsers (token, person_id) values ($1, $2)`,
    [hashed(browser), id],
  );
  return browser;
}

/** Whether a browser is one that a person signed in with before. */
export async function isKnownBrowser(
  session: Session,
  browser: string | undefined,
  personId: string,
): Promise<boolean> {
  if (!browser || browser.length > 100) return false;
  const { rowCount } = await session.query('select 1 from browsers where token = $1 and person_id = $2', [
    hashed(browser),
    personId,
  ]);
  return rowCount === 1;
}

export async function signOut(session: Session, token: string): Promise<void> {
  await session.query('delete from sessions where token = $1', [hashed(token)]);
}

/** Whose session a cookie's content is, if it is one. */
export async function personOf(session: Session, token: string | undefined): Promise<Person | null> {
  if (!token || token.length > 100) return null;
  const { rows } = await session.query<Person>(
    `select people.id, name from sessions join people on people.id = person_id where token = $1 and expires_at > now()`,
    [hashed(token)],
  );
  return rows[0] ?? null;
}

export async function roleIn(session: Session, projectId: string, person: Person): Promise<Role | null> {
  const { rows } = await session.query<{ role: Role }>(
    'select role from members where project_id = $1 and person_id = $2',
    [projectId, person.id],
  );
  return rows[0]?.role ?? null;
}

export async function membersOf(session: Session, projectId: string): Promise<Members['members']> {
  const { rows } = await session.query<Members['members'][number]>(
    'select id, name, role from members join people on people.id = person_id where project_id = $1 order by name',
    [projectId],
  );
  return rows;
}

/** Lets nobody else change who has a part in a project until the transaction ends. */
const lockMembers = (session: Session, projectId: string) =>
  session.query('select 1 from projects where id = $1 for update', [projectId]);

const mustKeepOwner = async (session: Session, projectId: string): Promise<void> => {
  const { rowCount } = await session.query(`select 1 from members where project_id = $1 and role = 'owner'`, [
    projectId,
  ]);
  if (rowCount === 0) throw new Refusal(422, 'owner', 'A project keeps at least one owner: name another first.');
};

/** Gives somebody a role in a project. To be run in one transaction. */
export async function setRole(session: Session, projectId: string, name: string, role: Role): Promise<void> {
  await lockMembers(session, projectId);
  const { rowCount } = await session.query(
    `insert into members (project_id, person_id, role) select $1, id, $3 from people where lower(name) = lower($2)
     on conflict (project_id, person_id) do update set role = $3`,
    [projectId, name, role],
  );
  if (rowCount === 0)
    throw new Refusal(404, 'not-found', `There is nobody called ${name}: ./jinx people add lets somebody sign in.`);
  await mustKeepOwner(session, projectId);
}

export async function removeMember(session: Session, projectId: string, personId: string): Promise<void> {
  await lockMembers(session, projectId);
  await session.query('delete from members where project_id = $1 and person_id = $2', [projectId, personId]);
  await mustKeepOwner(session, projectId);
}
