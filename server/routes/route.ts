import type { Role } from '@jinx/core/answers';
import type { Context } from 'koa';
import { networkOf } from '../access/network.ts';
import { idOf } from '../body.ts';
import { notFound, Refusal } from '../errors.ts';
import type { House } from '../house.ts';
import { mayAs, personOf, roleIn, type Person } from '../people/index.ts';

/** What a route is about: a project, or something in one, by the id in its address. */
const LOOKUPS = {
  project: 'select id as project, deleted_at is null as stands from projects where id = $1',
  effect: `select project_id as project, effects.deleted_at is null and projects.deleted_at is null as stands
    from effects join projects on projects.id = project_id where effects.id = $1`,
  kept: `select project_id as project, effects.deleted_at is null and projects.deleted_at is null as stands
    from tray join effects on effects.id = effect_id join projects on projects.id = project_id where tray.id = $1`,
} as const;
const CALLED = { project: 'project', effect: 'effect', kept: 'state in the tray' } as const;
export type Thing = keyof typeof LOOKUPS;

/** The cookie of a session. */
export const COOKIE = 'jinx';
/** The cookie by which a browser that signed in before is known. */
export const BROWSER_COOKIE = 'jinx-browser';

/** Someone's request, once it is known that what it is about is there and that they may. */
export interface Asked {
  readonly house: House;
  readonly context: Context & { params: Record<string, string> };
  /** The id of what it is about. */
  readonly id: string;
  /** The project that is in. */
  readonly projectId: string;
  /** Who asks; null where nobody signs in. */
  readonly person: Person | null;
  /** Their role in the project; an owner's where nobody signs in. */
  readonly role: Role;
  /** Who asks, by name; nobody's where nobody signs in. */
  readonly author: string;
}

export interface Route {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  readonly path: string;
  readonly about: Thing | null;
  /** Also where it was deleted, as to bring it back. */
  readonly alsoDeleted?: boolean;
  /** Who may: by default whoever may look where it only reads, and whoever may change where it does not. */
  readonly need?: Role | 'nobody';
  /** Whether it takes the server's time, so that it may be asked for only so often. */
  readonly isCostly?: boolean;
  readonly answer: (asked: Asked) => Promise<void> | void;
}

/** Whose requests are counted together: a person's, or those of an address where nobody signs in. */
export const ownerOf = ({ person, context }: Pick<Asked, 'person' | 'context'>): string =>
  person?.id ?? networkOf(context.ip);

/** Runs a route: finds who asks, what it is about and whether they may, and answers. */
export async function run(route: Route, house: House, context: Asked['context']): Promise<void> {
  const { hasSignIn } = house.settings;
  const person = hasSignIn ? await personOf(house.database, context.cookies.get(COOKIE)) : null;
  const needed = route.need ?? (route.method === 'get' ? 'viewer' : 'editor');
  if (hasSignIn && !person && needed !== 'nobody') throw new Refusal(401, 'sign-in', 'Sign in first.');
  if (route.isCostly) await house.costly(ownerOf({ person, context }));
  const asked = { house, context, person, author: person?.name ?? '' };
  if (!route.about) return route.answer({ ...asked, id: '', projectId: '', role: 'owner' });

  const called = CALLED[route.about];
  const id = idOf(context, called);
  const { rows } = await house.database.query<{ project: string; stands: boolean }>(LOOKUPS[route.about], [id]);
  const row = rows[0];
  if (!row || !(row.stands || route.alsoDeleted)) throw notFound(called);
  const role = person ? await roleIn(house.database, row.project, person) : 'owner';
  // Whoever has no part in a project does not learn that it is there.
  if (!role) throw notFound(called);
  if (needed !== 'nobody' && !mayAs(role, needed))
    throw new Refusal(
      403,
      'role',
      `You may look at this project, not ${needed === 'owner' ? 'decide over' : 'change'} it.`,
    );
  return route.answer({ ...asked, id, projectId: row.project, role });
}
