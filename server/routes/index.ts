import Router from '@koa/router';
import type { House } from '../house.ts';
import { ASSETS } from './assets.ts';
import { DELETED } from './deleted.ts';
import { EFFECTS } from './effects.ts';
import { FILES } from './files.ts';
import { HISTORY } from './history.ts';
import { PARCELS } from './parcels.ts';
import { PRESETS } from './presets.ts';
import { PEOPLE } from './people.ts';
import { PROJECTS } from './projects.ts';
import { run, type Route } from './route.ts';

const HEALTH: readonly Route[] = [
  {
    method: 'get',
    path: '/health',
    about: null,
    need: 'nobody',
    answer: ({ context }) => {
      context.body = { isWell: true };
    },
  },
  {
    method: 'get',
    path: '/ready',
    about: null,
    need: 'nobody',
    answer: async ({ house, context }) => {
      await house.database.query('select 1');
      context.body = { isReady: true };
    },
  },
];

export const ROUTES: readonly Route[] = [
  ...HEALTH,
  ...PROJECTS,
  ...EFFECTS,
  ...FILES,
  ...HISTORY,
  ...DELETED,
  ...ASSETS,
  ...PARCELS,
  ...PRESETS,
  ...PEOPLE,
];

export function routes(house: House): Router {
  const router = new Router({ prefix: '/api' });
  for (const route of ROUTES) router[route.method](route.path, (context) => run(route, house, context));
  return router;
}
