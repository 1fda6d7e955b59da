import { listed, type Dial, type Effect } from '@jinx/core/document';
import { readCanonicalPicture, readParcel, readRig } from '@jinx/core/formats';
import type { Rig } from '@jinx/core/geometry';
import type { StagePicture } from '@jinx/stage';
import type { CameraView, DialInfo, DialValue, EffectInfo, Triple } from '../api.ts';
import { firstCamera } from '../scene/cameras.ts';

/** A parcel as it is played. */
export interface PlayableParcel {
  readonly licence: string;
  readonly effects: readonly { readonly effect: Effect; readonly info: EffectInfo }[];
  readonly rigs: ReadonlyMap<string, Rig>;
  readonly pictures: readonly StagePicture[];
}

const triple = ([x, y, z]: readonly [number, number, number]): Triple => [x, y, z];

function dialInfo(dial: Dial): DialInfo[] {
  const { name } = dial;
  if (dial.kind === 'number')
    return [{ kind: 'number', name, least: dial.least, most: dial.most, value: dial.value }];
  if (dial.kind === 'switch') return [{ kind: 'switch', name, value: dial.value }];
  if (dial.kind === 'place') return [{ kind: 'place', name, value: triple(dial.at) }];
  return dial.kind === 'direction' ? [{ kind: 'direction', name, value: triple(dial.turn) }] : [];
}

function cameraOf(effect: Effect): CameraView | null {
  const camera = firstCamera(effect);
  return (
    camera && {
      position: triple(camera.position),
      target: triple(camera.target),
      fieldOfView: camera.fieldOfView,
      follows: camera.follows,
    }
  );
}

function infoOf(effect: Effect, licence: string): EffectInfo {
  const { opening, hold, closing } = effect.stretches;
  return {
    ...{ name: effect.name, licence, opening, closing },
    hold: { kind: hold.kind, seconds: hold.kind === 'none' ? 0 : hold.seconds },
    dials: listed(effect.dials).flatMap(({ item }) => dialInfo(item)),
    signals: listed(effect.signals).map(({ item }) => item.name),
    camera: cameraOf(effect),
  };
}

/** Reads a parcel for playing. @throws FormatError with a sentence that says what is wrong. */
export function playableParcel(bytes: Uint8Array): PlayableParcel {
  const { licence, effects, assets } = readParcel(bytes);
  return {
    licence,
    effects: effects
      .map(({ file, effect, licence: own }) => ({ file, effect, info: infoOf(effect, own || licence) }))
      .sort((a, b) => a.file.localeCompare(b.file, 'en', { numeric: true })),
    rigs: new Map(assets.flatMap(({ kind, hash, bytes: own }) => (kind === 'rig' ? [[hash, readRig(own)]] : []))),
    pictures: assets.flatMap(({ kind, hash, bytes: own }) =>
      kind === 'picture' ? [{ hash, texture: readCanonicalPicture(own) }] : [],
    ),
  };
}

const isTriple = (value: DialValue): value is Triple =>
  Array.isArray(value) && value.length === 3 && value.every((x) => Number.isFinite(x));

/** The dial with another value; a number is kept in its range. Null where the value is not of its kind. */
function turned(dial: Dial, value: DialValue): Dial | null {
  switch (dial.kind) {
    case 'number': {
      if (typeof value !== 'number' || !Number.isFinite(value)) return null;
      const [low, high] = [Math.min(dial.least, dial.most), Math.max(dial.least, dial.most)];
      return { ...dial, value: Math.min(high, Math.max(low, value)) };
    }
    case 'switch':
      return typeof value === 'boolean' ? { ...dial, value } : null;
    case 'place':
      return isTriple(value) ? { ...dial, at: [...value] } : null;
    case 'direction':
      return isTriple(value) ? { ...dial, turn: [...value] } : null;
    default:
      return null;
  }
}

/** An effect whose dials stand at other values. @throws an error that names the dial it does not have, or what it takes. */
export function withDialValues(effect: Effect, values: Readonly<Record<string, DialValue>>): Effect {
  const byId = { ...effect.dials.byId };
  for (const [name, value] of Object.entries(values)) {
    const found = listed(effect.dials).find(({ item }) => item.name === name);
    if (!found) throw new Error(`"${effect.name}" has no dial "${name}"`);
    const made = turned(found.item, value);
    if (!made) throw new Error(`the dial "${name}" is a ${found.item.kind}: ${JSON.stringify(value)} is none`);
    byId[found.id] = made;
  }
  return { ...effect, dials: { order: effect.dials.order, byId } };
}
