import type { Answer, AssetSummary, Deleted, Role, Unsent } from '@jinx/core/answers';
import { inTransaction } from '../database.ts';
import { restoreEffect, setDeleted, type Deletable } from '../deleted.ts';
import { THEIRS } from './projects.ts';
import type { Route, Thing } from './route.ts';

/** Deleting something, and bringing it back. */
const both = (path: string, about: Thing, table: Deletable, need: Role): Route[] => [
  {
    method: 'delete',
    path,
    about,
    need,
    answer: async ({ house, context, id }) => {
      await setDeleted(house.database, table, id, true);
      context.status = 204;
    },
  },
  {
    method: 'post',
    path: `${path}/restore`,
    about,
    need,
    alsoDeleted: true,
    answer: async ({ house, context, id }) => {
      await inTransaction(house.database, (session) =>
        table === 'effects' ? restoreEffect(session, id) : setDeleted(session, table, id, false),
      );
      context.status = 204;
    },
  },
];

export const DELETED: readonly Route[] = [
  ...both('/projects/:id', 'project', 'projects', 'owner'),
  ...both('/effects/:id', 'effect', 'effects', 'editor'),
  ...both('/tray/:id', 'kept', 'tray', 'editor'),
  {
    method: 'get',
    path: '/deleted',
    about: null,
    answer: async ({ house, context, person }) => {
      const { rows } = await house.database.query<Unsent<Deleted>>(
        `select id, name, deleted_at as "deletedAt" from projects
         where deleted_at is not null and ${THEIRS} order by deleted_at desc`,
        [person?.id ?? null],
      );
      context.body = rows satisfies Unsent<Answer<'GET /deleted'>>;
    },
  },
  {
    method: 'get',
    path: '/projects/:id/deleted',
    about: 'project',
    answer: async ({ house: { database }, context, id }) => {
      const effects = await database.query<Unsent<Deleted>>(
        `select id, name, deleted_at as "deletedAt" from effects
         where project_id = $1 and deleted_at is not null order by deleted_at desc`,
        [id],
      );
      const assets = await database.query<Unsent<AssetSummary & Deleted>>(
        `select hash, name, kind, deleted_at as "deletedAt" from project_assets join assets using (hash)
         where project_id = $1 and deleted_at is not null order by deleted_at desc`,
        [id],
      );
      context.body = { effects: effects.rows, assets: assets.rows } satisfies Unsent<
        Answer<'GET /projects/:id/deleted'>
      >;
    },
  },
];
