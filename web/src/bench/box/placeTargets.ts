import type { StageRigs } from '@jinx/core/checks';
import {
  FORCE_KINDS,
  forcesOn,
  forceWord,
  formatAddress,
  newForce,
  type Id,
  inLayer,
  isSameAddress,
  placesOf,
  setPlace,
  type Effect,
  type NamedPlace,
  type Place,
  type Vector,
} from '@jinx/core/document';
import type { ChapterName } from '@jinx/core/editing';
import { plainNumber } from '../entry/numbers';
import { Finder } from '../pick/finder';
import { anchorsOf, hungOn } from '../values/anchors';
import type { Target, Tools } from './target';
import { METRES, readVector } from './values';

const DEGREES = { least: -3600, most: 3600, unit: '°' };

/** Where a place's numbers begin: after the name of what it hangs on, if one is given. */
const NUMBERS = /(?:^|[\s,])([-−]?[\d.].*)$/;

/** Reads a place: what it hangs on, an offset, or both, as in `head 0, 0.2, 0`. @throws an error with a sentence. */
export function readPlaceText(text: string, place: Place, effect: Effect, rigs: StageRigs): Place {
  const numbers = NUMBERS.exec(text);
  const name = (numbers ? text.slice(0, numbers.index) : text).trim();
  const [found] = name === '' ? [] : new Finder(anchorsOf(effect, rigs)).find(name, 1);
  if (name !== '' && !found) throw new Error(`“${name}” is nothing that a place can hang on here`);
  const hung = found ? hungOn(place, found.anchor) : place;
  if (!numbers) return hung;
  return { ...hung, offset: readVector(numbers[1]!, { name: 'the place', ...METRES }) };
}

/** Where a place stands on the chapters' page: what the box calls it, and what its chip is called. */
interface Shown {
  readonly text: string;
  readonly chapter: ChapterName;
  readonly chip: string;
}
function shownAs({ address, name }: NamedPlace, effect: Effect): Shown | null {
  switch (address.kind) {
    case 'source':
      return { text: 'place', chapter: 'source', chip: 'source place' };
    case 'hit':
      return { text: `${name} place`, chapter: 'source', chip: `${name}, place` };
    case 'front':
      return { text: 'front place', chapter: 'source', chip: 'front, place' };
    case 'aim':
      return { text: 'aim', chapter: 'motion', chip: 'aim' };
    case 'force':
      return { text: `${name} place`, chapter: 'motion', chip: `${name}, place` };
    case 'from':
    case 'to':
      return { text: address.kind, chapter: 'appearance', chip: `ribbon, ${address.kind}` };
    case 'surface': {
      const { kind } = effect.surfaces.byId[address.id]!;
      return { text: `${kind} surface place`, chapter: 'motion', chip: `${kind}, place` };
    }
    default:
      return null;
  }
}

/** Changes a place of every chosen layer that has one like it; one of the effect's own once. */
function changePlace(tools: Tools, { address }: NamedPlace, shown: Shown, make: (place: Place) => Place): void {
  tools.change(`place ${shown.chip}`, (draft) => {
    const ids = 'layer' in address ? tools.chosenIds() : [tools.chosenId()];
    for (const id of ids) {
      const here = inLayer(address, id);
      const found = placesOf(draft, id).find((other) => isSameAddress(other.address, here));
      if (found) setPlace(draft, here, make(found.place));
    }
  });
  tools.leadTo(shown.chapter, null, shown.chip);
}

const placeText = (place: Place): string =>
  `${'bone' in place ? place.bone : place.kind}, ${place.offset.map(plainNumber).join(', ')} m`;

const SOURCE_WORDS: readonly string[] = [
  ...['position', 'translate', 'emitter position', 'location', 'at', 'on', 'on the'],
  ...['attach to', 'attach to bone', 'emit from', 'born on', 'parent to', 'follow bone', 'follow the'],
];
/** A force is placed by what it does: drawn to the hand, wind from there. */
const forceWords = (text: string): readonly string[] => {
  if (!text.endsWith(' place')) return [];
  const name = text.slice(0, -' place'.length);
  return [`${name} at`, `${name} to`, `${name} on`, `${name} from`, ...(name === 'attraction' ? ['attract to'] : [])];
};

/** Where things stand and how they are turned, by what they hang on or by numbers. */
export function placeTargets(effect: Effect, layerId: string, rigs: StageRigs): Target[] {
  const layer = effect.layers.byId[layerId];
  if (!layer) return [];
  return placesOf(effect, layerId).flatMap((named): Target[] => {
    const shown = shownAs(named, effect);
    if (!shown) return [];
    const isSource = named.address.kind === 'source';
    const turn = shown.text.endsWith('place') ? shown.text.replace(/place$/, 'turn') : `${shown.text} turn`;
    const id = formatAddress(named.address);
    const detail = `${layer.name} · ${shown.chapter}`;
    const run: Target['run'] = ({ leadTo }) => leadTo(shown.chapter, null, shown.chip);
    return [
      {
        id: isSource ? 'place source' : `place ${id}`,
        text: shown.text,
        otherWords: isSource ? SOURCE_WORDS : forceWords(shown.text),
        detail,
        run,
        take: (text, tools) => {
          const read = readPlaceText(text, named.place, tools.effect(), rigs);
          return {
            text: `${shown.text}: ${placeText(read)}`,
            run: (all) => changePlace(all, named, shown, (place) => readPlaceText(text, place, all.effect(), rigs)),
          };
        },
      },
      {
        id: isSource ? 'turn source' : `turn ${id}`,
        text: turn,
        otherWords: isSource ? ['rotate', 'rotation of the emitter', 'emitter rotation', 'turned by'] : [],
        detail,
        run,
        take: (text) => {
          const to = readVector(text, { name: turn, ...DEGREES });
          return {
            text: `${turn}: ${to.join(', ')}°`,
            run: (all) => changePlace(all, named, shown, (place) => ({ ...place, turn: [...to] as Vector })),
          };
        },
      },
    ];
  });
}

/** Where a force that the chosen layer lacks would stand: saying so adds it there. */
export function absentPlaceTargets(effect: Effect, layerId: Id, rigs: StageRigs): Target[] {
  const layer = effect.layers.byId[layerId];
  if (!layer) return [];
  const present = new Set(forcesOn(effect, layerId).map(({ item }) => item.kind));
  return FORCE_KINDS.filter((kind) => !present.has(kind)).map((kind): Target => {
    const text = `${forceWord(kind)} place`;
    return {
      id: `absent ${text}`,
      text,
      otherWords: forceWords(text),
      detail: `adds ${forceWord(kind)}`,
      run: (tools) => void tools.add({ kind: 'force', of: kind }),
      take: (typed, tools) => {
        const read = readPlaceText(typed, newForce(kind).place, tools.effect(), rigs);
        return {
          text: `add ${forceWord(kind)}, ${placeText(read)}`,
          run: (all) => {
            const id = all.add({ kind: 'force', of: kind });
            const named = placesOf(all.effect(), all.chosenId()).find(
              ({ address }) => address.kind === 'force' && address.id === id,
            );
            const shown = named && shownAs(named, all.effect());
            if (named && shown)
              changePlace(all, named, shown, (place) => readPlaceText(typed, place, all.effect(), rigs));
          },
        };
      },
    };
  });
}
