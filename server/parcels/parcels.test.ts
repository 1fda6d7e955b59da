import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { encode } from 'fast-png';
import { canonicalText, newEffect, newLayer, newStep, structuredCopy, type Effect } from '@jinx/core/document';
import { parcelOf, writeParcel, type ParcelAsset } from '@jinx/core/formats';
import { forgetOld } from '../index.ts';
import { imported } from '../workers/imported.ts';
import { DATABASE_URL, TestServer } from '../testing/testServer.ts';

const picture = (grey: number): Promise<ParcelAsset> =>
  imported(encode({ width: 2, height: 2, channels: 4, data: new Uint8Array(16).fill(grey) }), 'reeds.png');
function reeds(asset: ParcelAsset, seed = 5): Effect {
  const effect = newEffect('Reeds', seed);
  const layer = newLayer('Reeds', 1);
  const step = { ...newStep('picture'), picture: { asset: asset.hash, name: asset.name } };
  layer.look = { kind: 'own', steps: { order: ['p'], byId: { p: step } } };
  effect.layers = { order: ['a'], byId: { a: layer } };
  return effect;
}

const parcelled = (effect: Effect, asset: ParcelAsset) => writeParcel(parcelOf(effect, [asset]));
const FILE = 'effects/1-reeds.json';

describe.skipIf(!DATABASE_URL)('a parcel', () => {
  let server: TestServer;
  let [light, dark] = [] as unknown as [ParcelAsset, ParcelAsset];
  beforeAll(async () => {
    server = await TestServer.start('jinx_parcels_test');
    [light, dark] = await Promise.all([picture(200), picture(60)]);
  });
  afterAll(() => server.stop());

  const take = (
    project: string,
    parcel: Uint8Array,
    clashes: Record<string, string> = {},
    figures: Record<string, string> = {},
  ) =>
    server.ask(
      'POST',
      `/projects/${project}/parcels?choices=${encodeURIComponent(JSON.stringify({ clashes, figures }))}`,
      parcel,
    );
  const inProject = async (project: string) => {
    const { effects, assets } = (await server.ask('GET', `/projects/${project}`)).body;
    return {
      effects: effects.map(({ name, revision }: { name: string; revision: number }) => `${name} ${revision}`),
      assets: assets.map(({ name }: { name: string }) => name).sort(),
    };
  };

  it('that is taken in a second time changes nothing, under whatever name it is here', async () => {
    const project = await server.makeProject('Twice');
    const parcel = await parcelled(reeds(light), light);
    const first = await take(project, parcel);
    expect([first.status, first.body.isKnown]).toEqual([201, false]);
    await server.change(first.body.effects[0].id, (draft) => (draft.name = 'Reeds at dawn'));
    const before = await inProject(project);
    const second = await take(project, parcel);
    expect([second.status, second.body.isKnown, second.body.effects[0].name]).toEqual([200, true, 'Reeds at dawn']);
    expect(await inProject(project)).toEqual(before);
  });

  it('asks where it has the name of something else, and changes nothing until it is chosen', async () => {
    const project = await server.makeProject('Namesakes');
    await take(project, await parcelled(reeds(light), light));
    const before = await inProject(project);
    const other = await parcelled(reeds(dark, 6), dark);
    const asked = await take(project, other);
    expect([asked.status, asked.body.code]).toEqual([409, 'parcel-question']);
    expect(asked.body.clashes).toEqual([
      { of: FILE, kind: 'effect', name: 'Reeds' },
      { of: dark.hash, kind: 'picture', name: 'reeds' },
    ]);
    expect((await take(project, other, { [FILE]: 'both' })).body.clashes).toHaveLength(1);
    expect(await inProject(project)).toEqual(before);
    expect((await take(project, other, { [FILE]: 'sideways' })).status).toBe(400);

    const both = await take(project, other, { [FILE]: 'both', [dark.hash]: 'both' });
    expect([both.status, both.body.effects[0].name]).toEqual([201, 'Reeds 2']);
    expect(await inProject(project)).toEqual({ effects: ['Reeds 1', 'Reeds 2 1'], assets: ['reeds', 'reeds 2'] });
    expect((await take(project, other)).body).toMatchObject({ isKnown: true, effects: [{ name: 'Reeds 2' }] });
  });

  it('may be written over what is here, which its history keeps, and use what is here', async () => {
    const project = await server.makeProject('Over');
    const first = await take(project, await parcelled(reeds(light), light));
    const other = await parcelled(reeds(dark, 6), dark);
    const over = await take(project, other, { [FILE]: 'over', [dark.hash]: 'present' });
    expect([over.status, over.body.effects[0].id]).toEqual([201, first.body.effects[0].id]);
    expect(await inProject(project)).toEqual({ effects: ['Reeds 2'], assets: ['reeds'] });
    const wanted = structuredCopy(reeds(light, 6));
    expect(canonicalText((await server.open(first.body.effects[0].id)).document)).toBe(canonicalText(wanted));
    expect((await server.ask('GET', `/effects/${first.body.effects[0].id}/revisions/1`)).body.document.seed).toBe(5);
    const again = await take(project, other, { [FILE]: 'over', [dark.hash]: 'present' });
    expect([again.status, again.body.isKnown]).toEqual([200, true]);
  });

  it('brings an asset back that was taken out of the project, and no such asset is taken out while it is used', async () => {
    const project = await server.makeProject('Out');
    const parcel = await parcelled(reeds(light), light);
    const { id } = (await take(project, parcel)).body.effects[0];
    const address = `/projects/${project}/assets/${light.hash}`;
    const used = await server.ask('DELETE', address);
    expect([used.status, used.body.sentence]).toEqual([409, 'Reeds would lack it: take it out of there first.']);
    await server.ask('DELETE', `/effects/${id}`);
    expect((await server.ask('DELETE', address)).status).toBe(204);
    expect((await inProject(project)).assets).toEqual([]);
    expect((await server.ask('GET', `/projects/${project}/deleted`)).body.assets).toMatchObject([{ name: 'reeds' }]);
    // However long ago: the effect may be brought back, and needs it then.
    await server.database.query(
      `update project_assets set deleted_at = now() - interval '40 days' where project_id = $1`,
      [project],
    );
    await forgetOld(server.database);
    expect((await server.ask('POST', `/effects/${id}/restore`)).status).toBe(204);
    expect(await inProject(project)).toEqual({ effects: ['Reeds 1'], assets: ['reeds'] });
    await server.ask('DELETE', `/effects/${id}`);
    await server.ask('DELETE', address);
    await take(project, parcel);
    expect((await inProject(project)).assets).toEqual(['reeds']);
  });
});
