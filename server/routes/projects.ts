import { randomUUID } from 'node:crypto';
import {
  toneChoice,
  type Answer,
  type AssetSummary,
  type EffectSummary,
  type ProjectDetail,
  type ProjectFile,
  type ProjectSummary,
  type Unsent,
} from '@jinx/core/answers';
import { licenceSchema } from '@jinx/core/formats';
import { z } from 'zod';
import { DOCUMENT_BODY, jsonOf } from '../body.ts';
import { inTransaction } from '../database.ts';
import { addEffect } from '../effects/index.ts';
import { begin } from '../kit.ts';
import { setTone, toneOf } from '../tone.ts';
import { searchProject } from '../search.ts';
import { mustKeepFile } from './files.ts';
import { nameOf } from './names.ts';
import type { Route } from './route.ts';

/** Letters that are looked for at most. */
const MOST_SOUGHT = 200;
const projectName = z.strictObject({ name: nameOf('a project') });
const projectChange = projectName.partial().extend({
  livingBudget: z
    .number()
    .int()
    .min(1000, 'a budget is at least 1,000')
    .max(4_000_000, 'a budget is at most 4,000,000')
    .optional(),
  licence: licenceSchema.optional(),
  tone: toneChoice.optional(),
});

/** Whether somebody has a part in a project; nobody's who does not sign in are all. */
export const THEIRS = `($1::uuid is null or exists
  (select 1 from members where project_id = projects.id and person_id = $1))`;

/** Columns of an effect in a list. */
const EFFECT_SUMMARY = `id, name, revision, saved_at as "savedAt", picture_revision as "pictureRevision", pictures,
  (select name from effects as other where other.id = effects.sibling_of and deleted_at is null) as "siblingOf"`;
/** Effects that are listed of each project on the page of all. */
const MOST_RECENT = 18;
/** Projects, those that were worked on last first, with what matches: of one whose name does, all its effects. */
const PROJECT_LIST = `select id, name, effects, recent from projects,
  lateral (select lower(name) like $2 as "isNamed") as named,
  lateral (select count(*)::int as effects, coalesce(max(saved_at), projects.created_at) as "workedOn" from effects
    where project_id = projects.id and deleted_at is null and ("isNamed" or lower(name) like $2)) as counted,
  lateral (select coalesce(json_agg(to_json(latest)), '[]') as recent from (select ${EFFECT_SUMMARY} from effects
    where project_id = projects.id and deleted_at is null and ("isNamed" or lower(name) like $2)
    order by saved_at desc, name, id limit $3) as latest) as latest
  where deleted_at is null and ${THEIRS} and ("isNamed" or effects > 0) order by "workedOn" desc, id`;
const soughtIn = (text: unknown): string => (typeof text === 'string' ? text.slice(0, MOST_SOUGHT) : '');

export const PROJECTS: readonly Route[] = [
  {
    method: 'get',
    path: '/projects',
    about: null,
    answer: async ({ house, context, person }) => {
      const find = soughtIn(context.query['find']);
      const { rows } = await house.database.query<Unsent<ProjectSummary>>(PROJECT_LIST, [
        person?.id ?? null,
        `%${find.toLowerCase().replace(/[%_\\]/g, '\\$&')}%`,
        MOST_RECENT,
      ]);
      context.body = rows satisfies Unsent<Answer<'GET /projects'>>;
    },
  },
  {
    method: 'post',
    path: '/projects',
    about: null,
    answer: async ({ house, context, person }) => {
      const { name } = await jsonOf(context, projectName);
      const id = randomUUID();
      await house.database.query(
        `with made as (insert into projects (id, name) values ($1, $2) returning id)
         insert into members (project_id, person_id, role) select id, $3::uuid, 'owner' from made where $3::uuid is not null`,
        [id, name, person?.id ?? null],
      );
      context.status = 201;
      context.body = { id, name } satisfies Answer<'POST /projects'>;
    },
  },
  {
    method: 'get',
    path: '/projects/:id',
    about: 'project',
    answer: async ({ house: { database, quota }, context, id }) => {
      const { rows } = await database.query<Pick<ProjectDetail, 'id' | 'name' | 'livingBudget' | 'licence' | 'tone'>>(
        'select id, name, living_budget as "livingBudget", licence, tone from projects where id = $1',
        [id],
      );
      const effects = await database.query<Unsent<EffectSummary>>(
        `select ${EFFECT_SUMMARY}
         from effects where project_id = $1 and deleted_at is null order by name, id`,
        [id],
      );
      const assets = await database.query<AssetSummary>(
        `select hash, name, kind, size::float8 as bytes, licence, original_name as "originalName",
           thumbnail is not null as "hasThumbnail" from project_assets join assets using (hash)
         where project_id = $1 and deleted_at is null order by added_at, hash`,
        [id],
      );
      const files = await database.query<ProjectFile>(
        'select purpose, name, type, octet_length(content) as bytes from project_files where project_id = $1 order by purpose',
        [id],
      );
      const disk = await quota.useOf(database, id);
      context.body = {
        ...rows[0]!,
        effects: effects.rows,
        assets: assets.rows,
        files: files.rows,
        disk,
      } satisfies Unsent<Answer<'GET /projects/:id'>>;
    },
  },
  {
    method: 'patch',
    path: '/projects/:id',
    about: 'project',
    answer: async ({ house, context, id }) => {
      const { name, livingBudget, licence, tone } = await jsonOf(context, projectChange);
      await inTransaction(house.database, async (session) => {
        if (tone === 'table') await mustKeepFile(session, id, 'tone');
        if (tone) await setTone(session, id, tone);
        await session.query(
          `update projects set name = coalesce($2, name), living_budget = coalesce($3, living_budget),
             licence = coalesce($4, licence) where id = $1`,
          [id, name ?? null, livingBudget ?? null, licence ?? null],
        );
      });
      context.status = 204;
    },
  },
  {
    method: 'get',
    path: '/projects/:id/tone',
    about: 'project',
    answer: async ({ house: { database }, context, id }) => {
      context.body = await toneOf(database, id);
    },
  },
  {
    method: 'get',
    path: '/projects/:id/search',
    about: 'project',
    isCostly: true,
    answer: async ({ house, context, id }) => {
      const found = await searchProject(house.database, house.workers, id, soughtIn(context.query['text']));
      context.body = found satisfies Unsent<Answer<'GET /projects/:id/search'>>;
    },
  },
  {
    method: 'post',
    path: '/projects/:id/effects',
    about: 'project',
    answer: async ({ house, context, id, author }) => {
      const { document } = await jsonOf(context, z.strictObject({ document: z.unknown() }), DOCUMENT_BODY);
      await house.quota.mustHaveRoom(house.database, id, Number(context.get('Content-Length')) || 0);
      const made = await inTransaction(house.database, (session) => addEffect(session, id, document, author));
      context.body = made satisfies Answer<'POST /projects/:id/effects'>;
      context.status = 201;
    },
  },
  {
    method: 'post',
    path: '/projects/:id/starts',
    about: 'project',
    isCostly: true,
    answer: async ({ house, context, id, author }) => {
      const { start, name } = await jsonOf(
        context,
        z.strictObject({ start: z.string().max(40), name: nameOf('an effect').or(z.literal('')) }),
      );
      const made = await begin(house, id, start, name, author);
      context.body = {
        id: made.id,
        revision: made.revision,
        name: made.document.name,
      } satisfies Answer<'POST /projects/:id/starts'>;
      context.status = 201;
    },
  },
];
