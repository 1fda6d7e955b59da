import type { Context } from 'koa';
import { idOf } from '../body.ts';
import { notFound } from '../errors.ts';
import type { House } from '../house.ts';

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

/** Someone's request, once it is known that what it is about is there. */
export interface Asked {
  readonly house: House;
  readonly context: Context & { params: Record<string, string> };
  /** The id of what it is about. */
  readonly id: string;
  /** The project that is in. */
  readonly projectId: string;
  /** Who asks, by name; nobody's where nobody signs in. */
  readonly author: string;
}

export interface Route {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  readonly path: string;
  readonly about: Thing | null;
  /** Also where it was deleted, as to bring it back. */
  readonly alsoDeleted?: boolean;
  readonly answer: (asked: Asked) => Promise<void> | void;
}

/** Runs a route: finds what it is about, and answers. */
export async function run(route: Route, house: House, context: Asked['context']): Promise<void> {
  const asked = { house, context, author: '' };
  if (!route.about) return route.answer({ ...asked, id: '', projectId: '' });
  const id = idOf(context, CALLED[route.about]);
  const { rows } = await house.database.query<{ project: string; stands: boolean }>(LOOKUPS[route.about], [id]);
  const row = rows[0];
  if (!row || !(row.stands || route.alsoDeleted)) throw notFound(CALLED[route.about]);
  return route.answer({ ...asked, id, projectId: row.project });
}
