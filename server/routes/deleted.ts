import { setDeleted, type Deletable } from '../deleted.ts';
import type { Route, Thing } from './route.ts';

/** Deleting something, and bringing it back. */
const both = (path: string, about: Thing, table: Deletable): Route[] => [
  {
    method: 'delete',
    path,
    about,
    answer: async ({ house, context, id }) => {
      await setDeleted(house.database, table, id, true);
      context.status = 204;
    },
  },
  {
    method: 'post',
    path: `${path}/restore`,
    about,
    alsoDeleted: true,
    answer: async ({ house, context, id }) => {
      await setDeleted(house.database, table, id, false);
      context.status = 204;
    },
  },
];

export const DELETED: readonly Route[] = [
  ...both('/projects/:id', 'project', 'projects'),
  ...both('/effects/:id', 'effect', 'effects'),
  ...both('/tray/:id', 'kept', 'tray'),
  {
    method: 'get',
    path: '/deleted',
    about: null,
    answer: async ({ house, context }) => {
      const { rows } = await house.database.query(
        'select id, name, deleted_at as "deletedAt" from projects where deleted_at is not null order by deleted_at desc',
      );
      context.body = rows;
    },
  },
  {
    method: 'get',
    path: '/projects/:id/deleted',
    about: 'project',
    answer: async ({ house: { database }, context, id }) => {
      const effects = await database.query(
        `select id, name, deleted_at as "deletedAt" from effects
         where project_id = $1 and deleted_at is not null order by deleted_at desc`,
        [id],
      );
      const assets = await database.query(
        `select hash, name, kind, deleted_at as "deletedAt" from project_assets join assets using (hash)
         where project_id = $1 and deleted_at is not null order by deleted_at desc`,
        [id],
      );
      context.body = { effects: effects.rows, assets: assets.rows };
    },
  },
];
