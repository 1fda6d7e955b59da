import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { canonicalText, collectionOf, newEffect, newThing, SCHEMA } from '../../document/index.ts';
import { linkEffect } from '../../editing/index.ts';
import { SIMULATION } from '../../simulation/index.ts';
import { bendingTube } from '../../testing/rigs.ts';
import { importGlb } from '../gltf.ts';
import { hashName, readPicture, writePicture, writePng, writeRig } from '../index.ts';
import {
  checkOpenFiles,
  effectFile,
  parcelOf,
  readParcel,
  writeParcel,
  type Parcel,
  type ParcelAsset,
} from './index.ts';

const REEDS_ID = '00000000-0000-4000-8000-000000000001';
const tubeBytes = writeRig(bendingTube(3, 3));
const tube: ParcelAsset = {
  hash: hashName(tubeBytes),
  name: 'Reed tube',
  kind: 'rig',
  licence: 'CC0-1.0',
  bytes: tubeBytes,
};
const pixels = { width: 2, height: 2, rgba: Uint8Array.from({ length: 16 }, (_, n) => n * 16) };
const pictureBytes = writePicture(pixels);
const picture: ParcelAsset = {
  hash: hashName(pictureBytes),
  name: 'Moth',
  kind: 'picture',
  licence: '',
  bytes: pictureBytes,
};

function reeds() {
  const effect = newEffect('Reeds', 5);
  effect.stage.things = collectionOf([['tube', newThing('Tube', tube.hash)]]);
  return effect;
}
/** An effect, its sibling, and one into which the first is linked. */
function family(): Parcel {
  const holder = newEffect('Marsh', 6);
  linkEffect(holder, 'g', REEDS_ID, reeds());
  const entry = { licence: '', siblingOf: null, linkedAs: null, picture: null };
  const first = effectFile(3, 'Reeds');
  return {
    licence: 'Made for Fenlight',
    effects: [
      { ...entry, file: effectFile(1, 'Marsh'), effect: holder },
      { ...entry, file: effectFile(2, 'Dark reeds'), effect: { ...reeds(), name: 'Dark reeds' }, siblingOf: first },
      {
        ...entry,
        file: first,
        effect: reeds(),
        linkedAs: REEDS_ID,
        picture: writePng(pixels),
        licence: 'CC-BY-4.0',
      },
    ],
    assets: [tube, picture],
  };
}
type Files = Record<string, Uint8Array>;
const spoilt = async (change: (files: Files) => void, of: Parcel = family()) => {
  const files = unzipSync(await writeParcel(of));
  change(files);
  return zipSync(files);
};
const manifestOf = (files: Files) => JSON.parse(strFromU8(files['manifest.json']!)) as Record<string, never>;
const withManifest = (change: (manifest: never) => void) => (files: Files) => {
  const manifest = manifestOf(files);
  change(manifest as never);
  files['manifest.json'] = strToU8(JSON.stringify(manifest));
};

describe('a parcel', () => {
  it('carries effects, what hangs on what, pictures, licences and assets, and reads back whole', async () => {
    const bytes = await writeParcel(family());
    expect(Buffer.from(await writeParcel(family())).equals(Buffer.from(bytes))).toBe(true);
    const read = readParcel(bytes);
    await checkOpenFiles(read);
    // What another is made of comes before it.
    expect(read.effects.map(({ effect }) => effect.name)).toEqual(['Reeds', 'Marsh', 'Dark reeds']);
    for (const each of family().effects) expect(read.effects.find(({ file }) => file === each.file)).toEqual(each);
    expect(read.licence).toBe('Made for Fenlight');
    const assets = read.assets.map(({ hash, name, kind, licence, bytes: own }) => ({
      hash,
      name,
      kind,
      licence,
      bytes: own,
    }));
    expect(new Set(assets)).toEqual(new Set([tube, picture]));
  });

  it('has meshes as GLB and pictures as PNG, which other programs read', async () => {
    const files = unzipSync(await writeParcel(family()));
    expect(readPicture(files[`textures/moth-${picture.hash.slice(0, 8)}.png`]!)).toEqual(pixels);
    const rig = await importGlb(files[`meshes/reed-tube-${tube.hash.slice(0, 8)}.glb`]!, 'tube');
    expect(rig.bones.map(({ name }) => name)).toEqual(['low', 'high', 'tube mesh']);
    expect(manifestOf(files)).toMatchObject({
      parcel: 2,
      made: { schema: SCHEMA, simulation: SIMULATION },
      licence: 'Made for Fenlight',
    });
  });

  it('as it was made at first still comes in', () => {
    const effect = canonicalText(reeds());
    const manifest = {
      parcel: 1,
      effect: 'effect.json',
      assets: [{ hash: tube.hash, name: tube.name, kind: 'rig' }],
    };
    const bytes = zipSync({
      'manifest.json': strToU8(JSON.stringify(manifest)),
      'effect.json': strToU8(effect),
      [`assets/${tube.hash}.jxa`]: tube.bytes,
    });
    const read = readParcel(bytes);
    expect(read.effects).toMatchObject([{ file: 'effect.json', effect: reeds(), siblingOf: null }]);
    expect(read.assets).toMatchObject([{ hash: tube.hash, licence: '', open: null }]);
  });

  it.each<[string, RegExp, (files: Files) => void]>([
    [
      'an effect edited outside',
      /"effects\/3-reeds.json" .* was changed after it was made/,
      (files) => {
        files['effects/3-reeds.json'] = strToU8(canonicalText({ ...reeds(), seed: 6 }));
      },
    ],
    [
      'a texture edited outside',
      /"textures\/moth-.*png" .*"Moth".* was changed/,
      (files) => {
        files[`textures/moth-${picture.hash.slice(0, 8)}.png`] = writePng({ ...pixels, rgba: new Uint8Array(16) });
      },
    ],
    [
      'a mesh that is missing',
      /lacks "meshes\/reed-tube/,
      (files) => {
        delete files[`meshes/reed-tube-${tube.hash.slice(0, 8)}.glb`];
      },
    ],
    ['a newer one', /made by a newer Jinx: update/, withManifest((m: { parcel: number }) => (m.parcel = 3))],
    [
      'a sibling of what is not there',
      /has a sibling of "effects\/9-x.json"/,
      withManifest((m: { effects: { siblingOf: string }[] }) => {
        m.effects[1]!.siblingOf = 'effects/9-x.json';
      }),
    ],
    [
      'siblings in a circle',
      /made of each other in a circle/,
      withManifest((m: { effects: { siblingOf: string }[] }) => {
        m.effects[2]!.siblingOf = 'effects/2-dark-reeds.json';
      }),
    ],
    [
      'something that stands in itself',
      /made of each other in a circle/,
      withManifest((m: { effects: { linkedAs: string | null }[] }) => {
        m.effects[2]!.linkedAs = null;
        m.effects[0]!.linkedAs = REEDS_ID;
      }),
    ],
    [
      'an asset that is not there',
      /"Reeds" in this parcel uses a figure/,
      (files) => {
        withManifest(
          (m: { assets: { kind: string }[] }) => (m.assets = m.assets.filter(({ kind }) => kind !== 'rig')),
        )(files);
        delete files[`assets/${tube.hash}.jxa`];
        delete files[`meshes/reed-tube-${tube.hash.slice(0, 8)}.glb`];
      },
    ],
  ])('with %s is refused by name', async (_, sentence, change) => {
    const bytes = await spoilt(change);
    expect(() => readParcel(bytes)).toThrow(sentence);
  });

  it('whose PNG or GLB shows something else than what is played is refused by name', async () => {
    const other = writePng({ ...pixels, rgba: new Uint8Array(16) });
    const name = `textures/moth-${picture.hash.slice(0, 8)}.png`;
    const lying = await spoilt((files) => {
      files[name] = other;
      withManifest((m: { assets: { kind: string; open: { sha256: string } }[] }) => {
        m.assets.find(({ kind }) => kind === 'picture')!.open.sha256 = hashName(other);
      })(files);
    });
    await expect(checkOpenFiles(readParcel(lying))).rejects.toThrow(
      /"textures\/moth.*is not what its canonical bytes of "Moth"/,
    );
  });

  it('of one effect has nothing but that', async () => {
    const { effects, licence } = readParcel(await writeParcel(parcelOf(newEffect('Reeds “light” / 2', 1), [])));
    expect([effects.map(({ file }) => file), licence]).toEqual([['effects/1-reeds-light-2.json'], '']);
  });
});
