import type { Answer } from '@jinx/core/answers';
import { filmSettingsSchema } from '@jinx/core/formats';
import { z } from 'zod';
import { jsonOf } from '../body.ts';
import { inTransaction } from '../database.ts';
import { Refusal } from '../errors.ts';
import { nameOf } from './names.ts';
import type { Route } from './route.ts';

/** Presets of a project, at most. */
const MOST_PRESETS = 100;
const preset = z.strictObject({ name: nameOf('a preset'), settings: filmSettingsSchema });

/** How pictures and films are taken, kept in the project under names. */
export const PRESETS: readonly Route[] = [
  {
    method: 'get',
    path: '/projects/:id/presets',
    about: 'project',
    answer: async ({ house, context, id }) => {
      const { rows } = await house.database.query<{ name: string; settings: unknown }>(
        'select name, settings from film_presets where project_id = $1 order by name',
        [id],
      );
      const presets = rows.map(({ name, settings }) => ({
        name,
        settings: filmSettingsSchema.safeParse(settings).data ?? null,
      }));
      context.body = presets satisfies Answer<'GET /projects/:id/presets'>;
    },
  },
  {
    method: 'put',
    path: '/projects/:id/presets',
    about: 'project',
    answer: async ({ house, context, id }) => {
      const { name, settings } = await jsonOf(context, preset);
      await inTransaction(house.database, async (database) => {
        await database.query('select 1 from projects where id = $1 for update', [id]);
        await database.query(
          `insert into film_presets (project_id, name, settings) values ($1, $2, $3)
           on conflict (project_id, name) do update set settings = excluded.settings, kept_at = now()`,
          [id, name, JSON.stringify(settings)],
        );
        const { rows } = await database.query<{ count: number }>(
          'select count(*)::int as count from film_presets where project_id = $1',
          [id],
        );
        if (rows[0]!.count > MOST_PRESETS)
          throw new Refusal(
            422,
            'presets.many',
            `A project keeps up to ${MOST_PRESETS} presets: take one away first.`,
          );
      });
      context.status = 204;
    },
  },
  {
    method: 'delete',
    path: '/projects/:id/presets',
    about: 'project',
    answer: async ({ house, context, id }) => {
      const { name } = await jsonOf(context, preset.pick({ name: true }));
      await house.database.query('delete from film_presets where project_id = $1 and name = $2', [id, name]);
      context.status = 204;
    },
  },
];
