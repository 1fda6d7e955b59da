import { execFile } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { encode } from 'fast-png';
import validator from 'gltf-validator';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newEffect, type Effect } from '@jinx/core/document';
import { bonesUsed, linkEffect } from '@jinx/core/editing';
import { checkOpenFiles, hashName, readParcel, readPicture } from '@jinx/core/formats';
import { KIT, lamplitMantle } from '@jinx/demo';
import { Quota } from '../quota.ts';
import { DATABASE_URL, TestServer } from '../testing/testServer.ts';

describe.skipIf(!DATABASE_URL)('a parcel of several effects, and of figures', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await TestServer.start('jinx_figures_test');
  });
  afterAll(() => server.stop());

  const bytesOf = async (path: string) => {
    const answer = await fetch(server.base + path);
    expect(answer.status).toBe(200);
    return new Uint8Array(await answer.arrayBuffer());
  };
  const fromKit = async (project: string, file: string): Promise<string> =>
    (await server.ask('POST', `/projects/${project}/kit`, { file })).body.hash;
  const take = (project: string, parcel: Uint8Array, figures: Record<string, string> = {}) =>
    server.ask(
      'POST',
      `/projects/${project}/parcels?choices=${encodeURIComponent(JSON.stringify({ clashes: {}, figures }))}`,
      parcel,
    );
  const documents = async (project: string): Promise<Effect[]> => {
    const { effects } = (await server.ask('GET', `/projects/${project}`)).body;
    return Promise.all(effects.map(async ({ id }: { id: string }) => (await server.open(id)).document));
  };
  /** A project with a mantle, its sibling and an effect into which it is linked, and the address of all three. */
  async function family() {
    const project = await server.makeProject('Giver');
    const sedge = await fromKit(project, 'sedge.glb');
    const mantle = await server.makeEffect(project, lamplitMantle(sedge));
    const sibling = (await server.ask('POST', `/effects/${mantle.id}/siblings`, { name: 'Dim mantle' })).body.id;
    const holder = newEffect('Warden', 7);
    linkEffect(holder, 'g', mantle.id, lamplitMantle(sedge));
    const { id } = await server.makeEffect(project, holder);
    return { project, sedge, effects: [mantle.id, sibling, id].join(',') };
  }

  it('lists what it holds, and comes in with what hangs on what; a second time changes nothing', async () => {
    const { project, sedge, effects } = await family();
    await server.ask('PATCH', `/projects/${project}`, { licence: 'Fenlight only' });
    await server.ask('PATCH', `/projects/${project}/assets/${sedge}`, { licence: 'CC0-1.0' });
    const contents = (await server.ask('GET', `/projects/${project}/parcel/contents?effects=${effects}`)).body;
    expect(contents).toMatchObject({ licence: 'Fenlight only', missing: [] });
    expect(contents.effects.map(({ name }: { name: string }) => name)).toEqual([
      'Dim mantle',
      'Lamplit Mantle',
      'Warden',
    ]);
    expect(contents.assets).toMatchObject([
      { hash: sedge, kind: 'rig', licence: 'CC0-1.0', originalName: 'sedge.glb' },
    ]);

    const bytes = await bytesOf(`/projects/${project}/parcel?effects=${effects}`);
    const parcel = readParcel(bytes);
    await checkOpenFiles(parcel);
    expect([parcel.licence, parcel.assets[0]!.licence]).toEqual(['Fenlight only', 'CC0-1.0']);

    const taker = await server.makeProject('Taker');
    const taken = await take(taker, bytes);
    expect(taken.status).toBe(201);
    const { effects: here, assets } = (await server.ask('GET', `/projects/${taker}`)).body;
    expect(here.map(({ name, siblingOf }: { name: string; siblingOf: string }) => [name, siblingOf])).toEqual([
      ['Dim mantle', 'Lamplit Mantle'],
      ['Lamplit Mantle', null],
      ['Warden', null],
    ]);
    expect(assets).toMatchObject([{ licence: 'CC0-1.0' }]);
    // The linked one leads to the effect of this project, and follows it.
    const mantle = here[1].id;
    await server.change(mantle, (draft) => (draft.seed = 99));
    await server.settle();
    const [dim, , warden] = await documents(taker);
    expect(dim!.seed).toBe(99);
    expect(Object.values(warden!.groups.byId)[0]!.linked!.of).toBe(mantle);
    expect(Object.values(warden!.groups.byId)[0]!.linked!.effect.seed).toBe(99);

    const third = await server.makeProject('Third');
    await take(third, bytes);
    const again = await take(third, bytes);
    expect([again.status, again.body.isKnown]).toEqual([200, true]);
    expect(await documents(third)).toHaveLength(3);
  });

  it('may be put on a figure of the project; its bones are kept, and the next time it needs no asking', async () => {
    const { project, sedge, effects } = await family();
    const bytes = await bytesOf(`/projects/${project}/parcel?effects=${effects.split(',')[0]}`);
    const taker = await server.makeProject('Other figure');
    const tallow = await fromKit(taker, 'tallow.glb');
    const asked = await take(taker, bytes);
    expect([asked.status, asked.body.code]).toEqual([409, 'parcel-question']);
    const [figure] = asked.body.figures;
    expect([figure.hash, figure.others.map(({ hash }: { hash: string }) => hash)]).toEqual([sedge, [tallow]]);
    const { matches, bones } = figure.others[0];
    const used = bonesUsed(lamplitMantle(sedge), sedge);
    expect(matches.map(({ bone }: { bone: string }) => bone).sort()).toEqual([...used].sort());
    for (const match of matches) expect(bones).toContain(match.to);
    expect(await documents(taker)).toEqual([]);

    // One bone is chosen by hand.
    const hand = matches[0].bone as string;
    const chosen = {
      ...Object.fromEntries(matches.map(({ bone, to }: { bone: string; to: string }) => [bone, to])),
      [hand]: bones[2],
    };
    const address = `/projects/${taker}/bones/${sedge}`;
    expect((await server.ask('PUT', address, { to: tallow, bones: { [hand]: 'no bone' } })).status).toBe(422);
    expect((await server.ask('PUT', address, { to: tallow, bones: chosen })).status).toBe(204);
    expect((await take(taker, bytes, { [sedge]: tallow })).status).toBe(201);
    const [made] = await documents(taker);
    expect(bonesUsed(made!, tallow)).toContain(bones[2]);
    expect(bonesUsed(made!, sedge)).toEqual([]);
    expect((await server.ask('GET', `/projects/${taker}`)).body.assets).toHaveLength(1);
    const again = await take(taker, bytes);
    expect([again.status, again.body.isKnown]).toEqual([200, true]);
  });

  it('is also one page that plays it, with the parcel in itself', async () => {
    const { project, effects } = await family();
    const page = Buffer.from(await bytesOf(`/projects/${project}/page?effects=${effects}`)).toString();
    const [, coded] = /id="parcel">([^<]*)</.exec(page)!;
    const { effects: inside } = readParcel(new Uint8Array(Buffer.from(coded!, 'base64')));
    expect(inside.map(({ effect }) => effect.name).sort()).toEqual(['Dim mantle', 'Lamplit Mantle', 'Warden']);
    expect(page).toContain('<title>Dim mantle</title>');
  });

  it('beside it, its attachments tell a game what it has to know', async () => {
    const { effects } = await family();
    const made = (await server.ask('GET', `/effects/${effects.split(',')[0]}/attachments`)).body;
    expect(made).toMatchObject({ stretches: { hold: { kind: 'continuing' } } });
    expect(made.sockets).toContainEqual(expect.objectContaining({ figure: 'Sedge', bone: 'foot.left' }));
    expect(made.measured.mostLiving).toBeGreaterThan(1000);
    // Round a figure that walks in a circle of three metres.
    expect(made.measured.bounds.most[0] - made.measured.bounds.least[0]).toBeGreaterThan(3);
  });

  it('is written without a window, whole or not at all, and what cannot be is said', async () => {
    await family();
    const folder = mkdtempSync(path.join(tmpdir(), 'jinx-export-test-'));
    const env = { ...process.env, JINX_DATABASE_URL: server.databaseUrl };
    const run = (...words: string[]) =>
      new Promise<{ hasFailed: boolean; stdout: string; stderr: string }>((done) =>
        execFile(
          process.execPath,
          ['--import', 'tsx', 'server/parcels/cli.ts', ...words],
          { env },
          (error, stdout, stderr) => done({ hasFailed: error !== null, stdout, stderr }),
        ),
      );
    const name = `Command ${Date.now()}`;
    await server.ask('POST', `/projects/${await server.makeProject(name)}/effects`, {
      document: newEffect('Marsh light', 3),
    });
    const made = await run(`${name}/marsh light`, '--as', 'parcel', '--out', folder);
    expect([made.hasFailed, made.stdout.trim()]).toEqual([false, path.join(folder, 'marsh-light.parcel.zip')]);
    expect(readdirSync(folder)).toEqual(['marsh-light.parcel.zip']);
    const { effects } = readParcel(new Uint8Array(readFileSync(path.join(folder, 'marsh-light.parcel.zip'))));
    expect(effects[0]!.effect).toEqual(newEffect('Marsh light', 3));
    expect((await run(`${name}/Reeds`, '--as', 'html', '--out', folder)).stderr).toMatch(
      'There is no effect "Reeds". There is: Marsh light.',
    );
    expect((await run(name, '--as', 'film')).stderr).toMatch(/^Use: \.\/jinx export/);
    const file = path.join(folder, 'marsh-light.parcel.zip');
    expect((await run(name, '--as', 'parcel', '--out', file)).stderr).toMatch(/is no folder: choose another/);
    rmSync(folder, { recursive: true });
  });

  it('may stay on the figure it came with', async () => {
    const { project, sedge, effects } = await family();
    const bytes = await bytesOf(`/projects/${project}/parcel?effects=${effects}`);
    const taker = await server.makeProject('Own figure');
    await fromKit(taker, 'tallow.glb');
    expect((await take(taker, bytes, { [sedge]: 'own' })).status).toBe(201);
    expect((await server.ask('GET', `/projects/${taker}`)).body.assets).toHaveLength(2);
  });

  it('is not made where the project lacks something, which is said by name', async () => {
    const { project, sedge, effects } = await family();
    await server.database.query('delete from project_assets where project_id = $1', [project]);
    const { missing } = (await server.ask('GET', `/projects/${project}/parcel/contents?effects=${effects}`)).body;
    expect(missing).toMatchObject([{ what: expect.stringContaining('figure or prop "Sedge"') }]);
    const refused = await server.ask('GET', `/projects/${project}/parcel?effects=${effects}`);
    expect([refused.status, refused.body.code]).toEqual([422, 'parcel.incomplete']);
    expect(sedge).toHaveLength(64);
  });

  it('beside it, an asset is saved by itself: as GLB or PNG, and as it was brought, which the quota counts', async () => {
    const project = await server.makeProject('Files');
    const brought = new Uint8Array(readFileSync(new URL('bogling.glb', KIT)));
    const figure = (await server.ask('POST', `/projects/${project}/assets?name=bogling.glb`, brought)).body;
    const original = await bytesOf(`/projects/${project}/assets/${figure.hash}/original`);
    expect(hashName(original)).toBe(hashName(brought));
    const { issues } = await validator.validateBytes(
      await bytesOf(`/projects/${project}/assets/${figure.hash}/open`),
    );
    expect(issues.messages.filter(({ severity }) => severity === 0)).toEqual([]);
    const quota = new Quota({ projectBytes: 1e9, totalBytes: 1e9 });
    expect(await quota.bytesOf(server.database, project)).toBe(figure.bytes + brought.length);

    const rgba = Uint8Array.from({ length: 16 }, (_, n) => n * 9);
    const png = encode({ width: 2, height: 2, channels: 4, data: rgba });
    const picture = (await server.ask('POST', `/projects/${project}/assets?name=spot.png`, png)).body;
    expect(readPicture(await bytesOf(`/projects/${project}/assets/${picture.hash}/open`)).rgba).toEqual(rgba);
  });
});
