import { readFileSync } from 'node:fs';
import { encode } from 'fast-png';
import jpeg from 'jpeg-js';
import {
  canonicalText,
  collectionOf,
  namedColour,
  newEffect,
  newGroup,
  newLayer,
  newStep,
  type Effect,
} from '@jinx/core/document';
import { hashName, newFilmSettings, parcelOf, writeParcel, writeRig, type ParcelAsset } from '@jinx/core/formats';
import { KIT, lamplitMantle, makeKit } from '@jinx/demo';
import { bendingTube } from '../../../core/testing/rigs.ts';
import { imported } from '../../workers/imported.ts';

/** What is untouched, and is taken in as it is. */
export interface Materials {
  readonly effect: Effect;
  readonly assets: readonly ParcelAsset[];
  readonly parcel: Uint8Array;
  readonly document: string;
  readonly preset: string;
  readonly png: Uint8Array;
  readonly jpg: Uint8Array;
  readonly glb: Uint8Array;
}

/** Pixels of a soft spot, so that packing them does something. */
function spot(side: number): Uint8Array {
  const rgba = new Uint8Array(side * side * 4);
  for (let p = 0; p < side * side; p++) {
    const far = Math.hypot((p % side) - side / 2, Math.floor(p / side) - side / 2);
    rgba.set([255, 200, (p * 7) & 255, Math.max(0, 255 - far * 12)], p * 4);
  }
  return rgba;
}

export async function makeMaterials(): Promise<Materials> {
  await makeKit();
  const glb = new Uint8Array(readFileSync(new URL('reed.glb', KIT)));
  const png = encode({ width: 32, height: 32, channels: 4, data: spot(32) });
  const jpg = new Uint8Array(jpeg.encode({ width: 32, height: 32, data: spot(32) }, 80).data);
  const picture = await imported(png, 'spot.png');
  // A figure with bones, a clip and a texture, of few triangles.
  const bytes = writeRig(bendingTube());
  const rig: ParcelAsset = { hash: hashName(bytes), name: 'Tube', kind: 'rig', licence: '', bytes };
  // Small, so that thousands of it are told apart in minutes; of every kind of thing something.
  const mantle = lamplitMantle(rig.hash);
  const effect = newEffect('Untouched', 9);
  effect.stage = mantle.stage;
  effect.palette = collectionOf([['warm', namedColour('Warm', '#ff8800')]]);
  effect.groups = collectionOf([
    ['outer', newGroup('Outer')],
    ['inner', { ...newGroup('Inner'), parent: 'outer' }],
  ]);
  const [body, sparks] = [newLayer('Body', 1), newLayer('Sparks', 2)];
  body.settings['life.colour'].base = { kind: 'fixed', value: { palette: 'warm' } };
  body.parent = 'inner';
  sparks.population = { kind: 'follows', layer: 'body' };
  const step = { ...newStep('picture'), picture: { asset: picture.hash, name: picture.name } };
  sparks.look = { kind: 'own', steps: { order: ['p'], byId: { p: step } } };
  effect.layers = collectionOf([
    ['body', body],
    ['sparks', sparks],
  ]);
  const assets = [rig, picture];
  return {
    effect,
    assets,
    parcel: await writeParcel(parcelOf(effect, assets)),
    document: canonicalText(effect),
    preset: JSON.stringify({ name: 'Untouched', settings: newFilmSettings('png', effect) }),
    png,
    jpg,
    glb,
  };
}
