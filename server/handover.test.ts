import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { encode } from 'fast-png';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { newStep, newEffect, newLayer } from '@jinx/core/document';
import { newFilmSettings } from '@jinx/core/formats';
import { KIT, lamplitMantle, makeKit } from '@jinx/demo';
import { forgetOld } from './index.ts';
import { DATABASE_URL, TestServer } from './testing/testServer.ts';

// These run against a real PostgreSQL, which ./jinx test brings up; they use a database of their own in it.
describe.skipIf(!DATABASE_URL)('the server, handing over', () => {
  let server: TestServer;
  beforeAll(async () => {
    await makeKit();
    server = await TestServer.start('jinx_handover_test');
  });
  afterAll(() => server.stop());

  const ask: TestServer['ask'] = (...words) => server.ask(...words);

  it('imports a figure once by content, and forgets it a while after its last project', async () => {
    const [a, b] = [await server.makeProject('Five'), await server.makeProject('Six')];
    const bytes = new Uint8Array(readFileSync(new URL('sedge.glb', KIT)));
    const one = await ask('POST', `/projects/${a}/assets?name=sedge.glb`, bytes);
    const two = await ask('POST', `/projects/${b}/kit`, { file: 'sedge.glb' });
    expect(one.status).toBe(201);
    expect(two.body.hash).toBe(one.body.hash);
    expect((await fetch(`${server.base}/assets/${one.body.hash}`)).status).toBe(200);
    await ask('DELETE', `/projects/${a}`);
    expect((await fetch(`${server.base}/assets/${one.body.hash}`)).status).toBe(200);
    await ask('DELETE', `/projects/${b}`);
    await forgetOld(server.database);
    expect((await fetch(`${server.base}/assets/${one.body.hash}`)).status).toBe(200);
    await server.database.query(
      `update projects set deleted_at = deleted_at - interval '31 days' where id = any($1)`,
      [[a, b]],
    );
    await forgetOld(server.database);
    expect((await fetch(`${server.base}/assets/${one.body.hash}`)).status).toBe(404);
  });

  it('keeps one file for each purpose, checks it, counts it, and lets a kept tone table be chosen again', async () => {
    const project = await server.makeProject('Files');
    const of = `/projects/${project}`;
    const detail = async () => (await ask('GET', of)).body;
    expect([(await detail()).tone, (await detail()).files]).toEqual(['filmic', []]);
    expect((await ask('PATCH', of, { tone: 'table' })).body.code).toBe('file.none');
    expect((await ask('PATCH', of, { tone: 'neutral' })).status).toBe(204);

    const table = strToU8('LUT_1D_SIZE 2\n0 0 0\n1 0.5 0.25\n');
    const put = (purpose: string, name: string, type: string, bytes: Uint8Array<ArrayBuffer>) =>
      ask('PUT', `${of}/files/${purpose}?${new URLSearchParams({ name, type }).toString()}`, bytes);
    const broken = await put('tone', 'bad.cube', 'text/plain', strToU8('LUT_1D_SIZE 2\n0 0\n'));
    expect([broken.status, broken.body.sentence]).toEqual([422, expect.stringContaining('line 2 of the table')]);
    expect((await detail()).tone).toBe('neutral');
    expect((await put('tone', 'dusk.cube', 'text/plain', table)).status).toBe(204);
    expect(await detail()).toMatchObject({
      tone: 'table',
      files: [{ purpose: 'tone', name: 'dusk.cube', type: 'text/plain', bytes: table.length }],
    });
    expect((await ask('GET', `${of}/tone`)).body).toEqual({ kind: 'table', text: strFromU8(table) });
    const got = await fetch(`${server.base}${of}/files/tone`);
    expect(new Uint8Array(await got.arrayBuffer())).toEqual(table);
    expect((await ask('PATCH', of, { tone: 'none' })).status).toBe(204);
    expect((await ask('PATCH', of, { tone: 'table' })).status).toBe(204);
    expect((await ask('DELETE', `${of}/files/tone`)).status).toBe(204);
    expect((await detail()).tone).toBe('filmic');
    expect((await ask('GET', `${of}/tone`)).body).toEqual({ kind: 'filmic' });

    expect((await put('reference', 'run.exe', 'application/exe', table)).body.code).toBe('file.type');
    expect((await put('letters', 'a.txt', 'text/plain', table)).status).toBe(404);
    expect((await ask('GET', `${of}/files/reference`)).status).toBe(404);
  });

  it('keeps presets of pictures and films under their names, and refuses what is none', async () => {
    const project = await server.makeProject('Presets');
    const of = `/projects/${project}/presets`;
    const settings = newFilmSettings('flipbook', newEffect('Reeds', 5));
    expect((await ask('PUT', of, { name: ' Small sheet ', settings })).status).toBe(204);
    const wider = { ...settings, width: 512 };
    expect((await ask('PUT', of, { name: 'Small sheet', settings: wider })).status).toBe(204);
    expect((await ask('GET', of)).body).toEqual([{ name: 'Small sheet', settings: wider }]);
    const wild = await ask('PUT', of, { name: 'Wild', settings: { ...settings, width: 1e9 } });
    expect([wild.status, wild.body.path]).toEqual([400, 'settings.width']);
    expect((await ask('PUT', of, { name: '', settings })).status).toBe(400);
    // What another version kept, and nobody understands any more, is named without its settings.
    await server.database.query(
      `insert into film_presets (project_id, name, settings) values ($1, 'Old', '{"as": "gif"}')`,
      [project],
    );
    expect((await ask('GET', of)).body[0]).toEqual({ name: 'Old', settings: null });
    for (const name of ['Old', 'Small sheet']) expect((await ask('DELETE', of, { name })).status).toBe(204);
    expect((await ask('GET', of)).body).toEqual([]);
  });

  it('takes pictures in, keeps them once by their pixels, and hands them over with the effect that shows them', async () => {
    const project = await server.makeProject('Pictures');
    const png = encode({ width: 2, height: 2, channels: 4, data: new Uint8Array(16).fill(120) });
    const asset = (await ask('POST', `/projects/${project}/assets?name=reeds.png`, png)).body;
    expect(asset).toMatchObject({ name: 'reeds', kind: 'picture' });
    const effect = newEffect('Reeds', 5);
    const layer = newLayer('Reeds', 1);
    const step = { ...newStep('picture'), picture: { asset: asset.hash, name: asset.name } };
    layer.look = { kind: 'own', steps: { order: ['p'], byId: { p: step } } };
    effect.layers = { order: ['a'], byId: { a: layer } };
    const made = await server.makeEffect(project, effect);
    const parcel = new Uint8Array(await (await fetch(`${server.base}/effects/${made.id}/parcel`)).arrayBuffer());
    expect(Object.keys(unzipSync(parcel))).toContain(`assets/${asset.hash}.jxa`);
    const other = await server.makeProject('Other');
    expect((await ask('POST', `/projects/${other}/effects`, { document: effect })).body.path).toBe('looks');
    expect((await ask('POST', `/projects/${other}/parcels`, parcel)).status).toBe(201);
    expect((await ask('GET', `/projects/${other}`)).body.assets).toEqual([{ ...asset, originalName: null }]);
  });

  it.each([
    ['nothing at all', 'x.png', new Uint8Array(0), /empty/],
    ['text', 'x.png', strToU8('no picture'), /PNG, JPEG and WebP/],
  ])('refuses %s as a picture with a sentence', async (_name, file, bytes, sentence) => {
    const answer = await ask('POST', `/projects/${await server.makeProject('Seven')}/assets?name=${file}`, bytes);
    expect(answer.status).toBe(422);
    expect(answer.body.sentence).toMatch(sentence);
  });

  it.each([
    ['text', strToU8('not a figure at all'), /not a GLB/],
    [
      'a cut-off file',
      new Uint8Array(readFileSync(new URL('sedge.glb', KIT))).slice(0, 5000),
      /damaged or incomplete/,
    ],
  ])('refuses %s as a figure with a sentence', async (_name, bytes, sentence) => {
    const before = await server.count('assets');
    const answer = await ask('POST', `/projects/${await server.makeProject('Seven')}/assets?name=x.glb`, bytes);
    expect(answer.status).toBe(422);
    expect(answer.body.sentence).toMatch(sentence);
    expect(await server.count('assets')).toBe(before);
  });

  describe('parcels', () => {
    async function parcelOfMantle(): Promise<Uint8Array> {
      const project = await server.makeProject('Giver');
      const { hash } = (await ask('POST', `/projects/${project}/kit`, { file: 'sedge.glb' })).body;
      const effect = await server.makeEffect(project, lamplitMantle(hash));
      return new Uint8Array(await (await fetch(`${server.base}/effects/${effect.id}/parcel`)).arrayBuffer());
    }

    const MANTLE = 'effects/1-lamplit-mantle.json';

    it('carry an effect and its figure to another project unchanged', async () => {
      const parcel = await parcelOfMantle();
      const taker = await server.makeProject('Taker');
      const answer = await ask('POST', `/projects/${taker}/parcels`, parcel);
      expect(answer).toMatchObject({ status: 201 });
      const project = (await ask('GET', `/projects/${taker}`)).body;
      expect(project.assets).toHaveLength(1);
      const effect = (await ask('GET', `/effects/${answer.body.effects[0].id}`)).body.document;
      expect(effect).toEqual(lamplitMantle(project.assets[0].hash));
      const again = new Uint8Array(
        await (await fetch(`${server.base}/effects/${answer.body.effects[0].id}/parcel`)).arrayBuffer(),
      );
      expect(Buffer.from(again).equals(Buffer.from(parcel))).toBe(true);
    });

    it.each<[string, (files: Record<string, Uint8Array>) => Uint8Array, RegExp]>([
      ['no zip', () => strToU8('hello'), /not a parcel/],
      ['one cut short', (files) => zipSync(files).slice(0, 900), /not a parcel, or it was cut short/],
      ['one without a manifest', ({ 'manifest.json': _gone, ...files }) => zipSync(files), /no manifest/],
      [
        'one whose figure was changed',
        (files) =>
          zipSync(
            Object.fromEntries(
              Object.entries(files).map(([name, bytes]) => [
                name,
                name.startsWith('assets/') ? bytes.map((b, i) => (i === bytes.length - 9 ? b ^ 1 : b)) : bytes,
              ]),
            ),
          ),
        /not what its manifest says/,
      ],
      [
        'one without its figure',
        (files) => zipSync(Object.fromEntries(Object.entries(files).filter(([name]) => !name.startsWith('assets/')))),
        /lacks "Sedge"|lacks "sedge"/,
      ],
      [
        'one with a stranger in it',
        (files) => zipSync({ ...files, '../../evil.sh': strToU8('#!') }),
        /would lead out of it/,
      ],
      [
        'one with a number changed by hand',
        (files) =>
          zipSync({
            ...files,
            [MANTLE]: strToU8(new TextDecoder().decode(files[MANTLE]).replace('"seed":20261', '"seed":1e99')),
          }),
        /"effects\/1-lamplit-mantle.json" .* was changed after it was made/,
      ],
      [
        'one from the future',
        (files) => zipSync({ ...files, 'manifest.json': strToU8('{"parcel":99}') }),
        /newer Jinx/,
      ],
    ])('refuse %s, and keep nothing of it', async (_name, spoil, sentence) => {
      const spoilt = spoil(unzipSync(await parcelOfMantle()));
      const taker = await server.makeProject('Wary');
      const before = [
        await server.count('effects'),
        await server.count('assets'),
        await server.count('project_assets'),
      ];
      const answer = await ask('POST', `/projects/${taker}/parcels`, spoilt);
      expect(answer.status).toBe(422);
      expect(answer.body.sentence).toMatch(sentence);
      expect([
        await server.count('effects'),
        await server.count('assets'),
        await server.count('project_assets'),
      ]).toEqual(before);
    });
  });
});
