import Router from '@koa/router';
import type { House } from '../house.ts';
import { ASSETS } from './assets.ts';
import { DELETED } from './deleted.ts';
import { EFFECTS } from './effects.ts';
import { HISTORY } from './history.ts';
import { PARCELS } from './parcels.ts';
import { PROJECTS } from './projects.ts';
import { run, type Route } from './route.ts';

const HEALTH: Route = {
  method: 'get',
  path: '/health',
  about: null,
  answer: async ({ house, context }) => {
    await house.database.query('select 1');
    context.body = { isWell: true };
  },
};

export const ROUTES: readonly Route[] = [
  HEALTH,
  ...PROJECTS,
  ...EFFECTS,
  ...HISTORY,
  ...DELETED,
  ...ASSETS,
  ...PARCELS,
];

export function routes(house: House): Router {
  const router = new Router({ prefix: '/api' });
  for (const route of ROUTES) router[route.method](route.path, (context) => run(route, house, context));
  return router;
}
