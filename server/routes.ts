import { randomUUID } from 'node:crypto';
import Router from '@koa/router';
import { z } from 'zod';
import { assetsOf, hashName, readParcel, readPicture, writeParcel, type ParcelAsset } from '@jinx/core/formats';
import { START_INSTANTS, STARTS } from '@jinx/demo';
import { assetBytes, imported, keepAsset, sweepAssets } from './assets.ts';
import { bytesOf, idOf, jsonOf } from './body.ts';
import { inTransaction, type Database, type Session } from './database.ts';
import {
  addEffect,
  addSibling,
  kinOf,
  letSiblingGo,
  loadEffect,
  loadRevision,
  revisionsOf,
  saveEffect,
} from './effects.ts';
import { notFound, Refusal } from './errors.ts';
import { begin, kitAsset, kitFiles } from './kit.ts';
import { searched } from './search.ts';

const MOST_FILE = 128 * 1024 * 1024;
const MOST_PICTURE = 1024 * 1024;
/** Letters that are looked for at most. */
const MOST_SOUGHT = 200;
const projectName = z.strictObject({
  name: z.string().trim().min(1, 'a project needs a name').max(80, 'a name has up to 80 letters'),
});

const effectName = z.strictObject({
  name: z.string().trim().min(1, 'an effect needs a name').max(80, 'a name has up to 80 letters'),
});

const projectChange = projectName.partial().extend({
  livingBudget: z
    .number()
    .int()
    .min(1000, 'a budget is at least 1,000')
    .max(4_000_000, 'a budget is at most 4,000,000')
    .optional(),
});

async function mustExist(session: Session, id: string): Promise<void> {
  const { rowCount } = await session.query('select 1 from projects where id = $1', [id]);
  if (rowCount === 0) throw notFound('project');
}

function fileName(query: unknown): string {
  return typeof query === 'string' && query.length > 0 ? query.slice(0, 200) : 'figure.glb';
}

export function routes(database: Database): Router {
  const router = new Router({ prefix: '/api' });

  router.get('/health', async (context) => {
    await database.query('select 1');
    context.body = { isWell: true };
  });

  router.get('/projects', async (context) => {
    const { rows } = await database.query(
      `select id, name, (select count(*)::int from effects where project_id = projects.id) as effects from projects order by created_at`,
    );
    context.body = rows;
  });

  router.post('/projects', async (context) => {
    const { name } = await jsonOf(context, projectName);
    const id = randomUUID();
    await database.query('insert into projects (id, name) values ($1, $2)', [id, name]);
    context.status = 201;
    context.body = { id, name };
  });

  router.get('/projects/:id', async (context) => {
    const id = idOf(context, 'project');
    const { rows } = await database.query(
      'select id, name, living_budget as "livingBudget" from projects where id = $1',
      [id],
    );
    if (!rows[0]) throw notFound('project');
    const effects = await database.query(
      `select id, name, revision, saved_at as "savedAt", picture_revision as "pictureRevision",
         (select name from effects as other where other.id = effects.sibling_of) as "siblingOf"
       from effects where project_id = $1 order by name, id`,
      [id],
    );
    const assets = await database.query(
      'select hash, name, kind from project_assets join assets using (hash) where project_id = $1 order by added_at, hash',
      [id],
    );
    context.body = { ...rows[0], effects: effects.rows, assets: assets.rows };
  });

  router.get('/projects/:id/search', async (context) => {
    const id = idOf(context, 'project');
    await mustExist(database, id);
    const { text } = context.query;
    context.body = await searched(database, id, typeof text === 'string' ? text.slice(0, MOST_SOUGHT) : '');
  });

  router.patch('/projects/:id', async (context) => {
    const { name, livingBudget } = await jsonOf(context, projectChange);
    const { rowCount } = await database.query(
      'update projects set name = coalesce($2, name), living_budget = coalesce($3, living_budget) where id = $1',
      [idOf(context, 'project'), name ?? null, livingBudget ?? null],
    );
    if (rowCount === 0) throw notFound('project');
    context.status = 204;
  });

  router.delete('/projects/:id', async (context) => {
    await inTransaction(database, async (session) => {
      const { rowCount } = await session.query('delete from projects where id = $1', [idOf(context, 'project')]);
      if (rowCount === 0) throw notFound('project');
      await sweepAssets(session);
    });
    context.status = 204;
  });

  router.post('/projects/:id/effects', async (context) => {
    const { document } = await jsonOf(context, z.strictObject({ document: z.unknown() }));
    const id = idOf(context, 'project');
    context.body = await inTransaction(database, async (session) => {
      await mustExist(session, id);
      return addEffect(session, id, document);
    });
    context.status = 201;
  });

  router.post('/projects/:id/assets', async (context) => {
    const id = idOf(context, 'project');
    await mustExist(database, id);
    const asset = await imported(await bytesOf(context, MOST_FILE), fileName(context.query['name']));
    context.body = await inTransaction(database, (session) => keepAsset(session, id, asset));
    context.status = 201;
  });

  router.get('/kit', (context) => {
    context.body = kitFiles();
  });

  router.post('/projects/:id/kit', async (context) => {
    const { file } = await jsonOf(context, z.strictObject({ file: z.string() }));
    const id = idOf(context, 'project');
    await mustExist(database, id);
    const asset = await kitAsset(file);
    context.body = await inTransaction(database, (session) => keepAsset(session, id, asset));
    context.status = 201;
  });

  router.get('/starts', (context) => {
    context.body = STARTS.map(({ id, intent, about, rest }) => ({
      id,
      intent,
      about,
      rest,
      instants: START_INSTANTS,
    }));
  });

  router.post('/projects/:id/starts', async (context) => {
    const { start, name } = await jsonOf(
      context,
      z.strictObject({ start: z.string().max(40), name: z.string().trim().max(80) }),
    );
    const id = idOf(context, 'project');
    await mustExist(database, id);
    const { id: effectId, revision, document } = await begin(database, id, start, name);
    context.body = { id: effectId, revision, name: document.name };
    context.status = 201;
  });

  router.get('/assets/:hash', async (context) => {
    const hash = context.params['hash'] ?? '';
    const bytes = /^[0-9a-f]{64}$/.test(hash) ? await assetBytes(database, hash) : null;
    if (!bytes) throw notFound('asset');
    context.set('Cache-Control', 'private, max-age=31536000, immutable');
    context.type = 'application/octet-stream';
    context.body = bytes;
  });

  router.get('/effects/:id', async (context) => {
    const id = idOf(context, 'effect');
    context.body = { ...(await loadEffect(database, id)), ...(await kinOf(database, id)) };
  });

  router.post('/effects/:id/siblings', async (context) => {
    const { name } = await jsonOf(context, effectName);
    const id = idOf(context, 'effect');
    const made = await inTransaction(database, (session) => addSibling(session, id, name));
    context.body = { id: made.id, name };
    context.status = 201;
  });

  router.delete('/effects/:id/sibling', async (context) => {
    await letSiblingGo(database, idOf(context, 'effect'));
    context.status = 204;
  });

  router.get('/effects/:id/revisions', async (context) => {
    context.body = await revisionsOf(database, idOf(context, 'effect'));
  });

  router.get('/effects/:id/revisions/:revision', async (context) => {
    const revision = Number(context.params['revision']);
    if (!Number.isInteger(revision)) throw notFound('revision');
    context.body = { document: await loadRevision(database, idOf(context, 'effect'), revision) };
  });

  router.put('/effects/:id', async (context) => {
    const { revision, document } = await jsonOf(
      context,
      z.strictObject({ revision: z.number().int().min(1), document: z.unknown() }),
    );
    const result = await inTransaction(database, (session) =>
      saveEffect(session, idOf(context, 'effect'), revision, document),
    );
    if (typeof result !== 'number')
      throw new Refusal(409, 'stale', 'This effect was changed elsewhere since you opened it. Both are kept.', {
        revision: result.revision,
        document: result.document,
      });
    context.body = { revision: result };
  });

  router.get('/effects/:id/picture', async (context) => {
    const { rows } = await database.query<{ picture: Buffer | null }>('select picture from effects where id = $1', [
      idOf(context, 'effect'),
    ]);
    if (!rows[0]?.picture) throw notFound('picture');
    context.set('Cache-Control', 'private, max-age=31536000, immutable');
    context.type = 'image/png';
    context.body = rows[0].picture;
  });

  router.put('/effects/:id/picture', async (context) => {
    const revision = Number(context.query['revision']);
    if (!Number.isInteger(revision) || revision < 1)
      throw new Refusal(400, 'request', 'A picture names the revision it shows.');
    const bytes = await bytesOf(context, MOST_PICTURE);
    readPicture(bytes);
    const { rowCount } = await database.query(
      'update effects set picture = $2, picture_revision = $3 where id = $1',
      [idOf(context, 'effect'), Buffer.from(bytes), revision],
    );
    if (rowCount === 0) throw notFound('effect');
    context.status = 204;
  });

  router.delete('/effects/:id', async (context) => {
    const { rowCount } = await database.query('delete from effects where id = $1', [idOf(context, 'effect')]);
    if (rowCount === 0) throw notFound('effect');
    context.status = 204;
  });

  router.get('/effects/:id/parcel', async (context) => {
    const effect = await loadEffect(database, idOf(context, 'effect'));
    const { rows } = await database.query<ParcelAsset>(
      'select hash, name, kind, bytes from project_assets join assets using (hash) where project_id = $1 and hash = any($2)',
      [effect.projectId, assetsOf(effect.document)],
    );
    context.type = 'application/zip';
    context.attachment(`${effect.document.name}.parcel.zip`);
    context.body = Buffer.from(
      writeParcel(
        effect.document,
        rows.map((row) => ({ ...row, bytes: new Uint8Array(row.bytes) })),
      ),
    );
  });

  router.post('/projects/:id/parcels', async (context) => {
    const id = idOf(context, 'project');
    await mustExist(database, id);
    const parcel = readParcel(await bytesOf(context, MOST_FILE));
    context.body = await inTransaction(database, async (session) => {
      for (const asset of parcel.assets) await keepAsset(session, id, { ...asset, hash: hashName(asset.bytes) });
      const { id: effectId, revision } = await addEffect(session, id, parcel.effect);
      return { id: effectId, revision, name: parcel.effect.name };
    });
    context.status = 201;
  });

  return router;
}
