import type { StageRigs } from '@jinx/core/checks';
import {
  atBorder,
  burst,
  listed,
  withItem,
  type Effect,
  type Layer,
  type Place,
  type Vector,
} from '@jinx/core/document';
import { setPlaying, setStretch, type ChapterName, type Playing } from '@jinx/core/editing';
import { plainNumber, readNumber, within, type Limits } from '../entry/numbers';
import { Finder } from '../pick/finder';
import { anchorsOf, hungOn } from '../values/anchors';
import type { Target, Tools } from './target';
import { readVector } from './values';

const METRES = { least: -1000, most: 1000, unit: 'm' };
const DEGREES = { least: -3600, most: 3600, unit: '°' };
const secondsOf = (text: string, limits: Limits) => within(readNumber(text, { unit: 's' }), limits);

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

interface PlaceField {
  readonly id: string;
  readonly text: string;
  readonly chapter: ChapterName;
  /** What its chip is called. */
  readonly chip: string;
  readonly get: (layer: Layer, effect: Effect) => Place | null;
  readonly set: (layer: Layer, effect: Effect, place: Place) => void;
}

/** The places of a layer, and of the surfaces and the front that it meets. */
function placeFields(effect: Effect, layer: Layer): PlaceField[] {
  const fields: PlaceField[] = [];
  if ('place' in layer.source)
    fields.push({
      id: 'source',
      text: 'place',
      chapter: 'source',
      chip: 'source place',
      get: ({ source }) => ('place' in source ? source.place : null),
      set: (own, _, place) => 'place' in own.source && (own.source.place = place),
    });
  fields.push({
    id: 'aim',
    text: 'aim',
    chapter: 'motion',
    chip: 'aim',
    get: ({ aim }) => aim,
    set: (own, _, place) => (own.aim = place),
  });
  for (const { id, item } of listed(layer.forces))
    fields.push({
      id: `force ${id}`,
      text: `${item.kind} place`,
      chapter: 'motion',
      chip: `${item.kind}, place`,
      get: ({ forces }) => forces.byId[id]?.place ?? null,
      set: ({ forces }, _, place) => forces.byId[id] && (forces.byId[id]!.place = place),
    });
  if ('from' in layer.drawn)
    for (const end of ['from', 'to'] as const)
      fields.push({
        id: `ribbon ${end}`,
        text: end === 'from' ? 'from' : 'to',
        chapter: 'appearance',
        chip: `ribbon, ${end}`,
        get: ({ drawn }) => ('from' in drawn ? drawn[end] : null),
        set: ({ drawn }, _, place) => 'from' in drawn && (drawn[end] = place),
      });
  if (layer.front !== null)
    fields.push({
      id: 'front',
      text: 'front place',
      chapter: 'source',
      chip: 'front, place',
      get: ({ front }, { fronts }) => fronts.byId[front ?? '']?.place ?? null,
      set: ({ front }, { fronts }, place) => fronts.byId[front ?? ''] && (fronts.byId[front!]!.place = place),
    });
  for (const { id, item } of listed(effect.surfaces))
    if ('place' in item)
      fields.push({
        id: `surface ${id}`,
        text: `${item.kind} surface place`,
        chapter: 'motion',
        chip: `${item.kind}, place`,
        get: (_, { surfaces }) => {
          const surface = surfaces.byId[id];
          return surface && 'place' in surface ? surface.place : null;
        },
        set: (_, { surfaces }, place) => {
          const surface = surfaces.byId[id];
          if (surface && 'place' in surface) surface.place = place;
        },
      });
  return fields;
}

function setPlace(tools: Tools, field: PlaceField, label: string, make: (place: Place) => Place): void {
  tools.change(label, (draft) => {
    for (const id of tools.chosenIds()) {
      const layer = draft.layers.byId[id];
      const place = layer && field.get(layer, draft);
      if (place) field.set(layer, draft, make(place));
    }
  });
  tools.leadTo(field.chapter, null, field.chip);
}

/** Where things stand and how they are turned, by what they hang on or by numbers. */
export function placeTargets(effect: Effect, layerId: string, rigs: StageRigs): Target[] {
  const layer = effect.layers.byId[layerId];
  if (!layer) return [];
  return placeFields(effect, layer).flatMap((field): Target[] => {
    const isSource = field.id === 'source';
    const turn = field.text.replace(/place$/, 'turn').replace(/^(aim|from|to)$/, '$1 turn');
    return [
      {
        id: `place ${field.id}`,
        text: field.text,
        otherWords: isSource ? ['position', 'translate', 'emitter position', 'location', 'at'] : [],
        detail: `${layer.name} · ${field.chapter}`,
        run: ({ leadTo }) => leadTo(field.chapter, null, field.chip),
        take: (text, tools) => {
          const now = tools.effect();
          const place = field.get(now.layers.byId[layerId]!, now)!;
          const read = readPlaceText(text, place, now, rigs);
          const on = 'bone' in read ? read.bone : read.kind;
          return {
            text: `${field.text}: ${on}, ${read.offset.map(plainNumber).join(', ')} m`,
            run: (all) =>
              setPlace(all, field, `place ${field.chip}`, (own) => readPlaceText(text, own, all.effect(), rigs)),
          };
        },
      },
      {
        id: `turn ${field.id}`,
        text: turn,
        otherWords: isSource ? ['rotate', 'rotation of the emitter', 'emitter rotation', 'turned by'] : [],
        detail: `${layer.name} · ${field.chapter}`,
        run: ({ leadTo }) => leadTo(field.chapter, null, field.chip),
        take: (text) => {
          const to = readVector(text, { name: turn, ...DEGREES });
          return {
            text: `${turn}: ${to.join(', ')}°`,
            run: (all) => setPlace(all, field, `turn ${field.chip}`, (own) => ({ ...own, turn: [...to] as Vector })),
          };
        },
      },
    ];
  });
}

const STRETCHES = [
  ['opening', ['intro', 'start-up', 'ramp up']],
  ['hold', ['sustain', 'loop length', 'hold time']],
  ['closing', ['outro', 'release time', 'ramp down']],
] as const;
const PLAYINGS: readonly { value: Playing; text: string; otherWords: readonly string[] }[] = [
  { value: 'once', text: 'plays once', otherWords: ['one-shot', 'once', 'no loop'] },
  { value: 'held', text: 'holds until let go', otherWords: ['hold', 'sustain until released'] },
  { value: 'looped', text: 'loops without a seam', otherWords: ['loop', 'looping', 'seamless loop'] },
];
const BURST = /^([\d., ]+?)(?:\s+at\s+(.+))?$/;

/** Lengths and times of the effect and of the chosen layer that are no settings of the table. */
export function timeTargets(effect: Effect, layerId: string): Target[] {
  const layer = effect.layers.byId[layerId];
  const own: Target[] = layer
    ? [
        {
          id: 'burst',
          text: 'burst',
          otherWords: ['add a burst', 'burst count', 'emit at once', 'explosion of particles'],
          detail: layer.bursts.order.length > 0 ? `${layer.name} · births` : 'adds a burst',
          run: (tools) => {
            if (layer.bursts.order.length === 0) tools.add({ kind: 'burst' });
            tools.leadTo('births', null, 'burst count');
          },
          take: (text) => {
            const read = BURST.exec(text.trim());
            if (!read) throw new Error('A burst is a number, and when it comes: 18 at 0.2');
            const limits = { name: 'a burst', least: 0, most: 1_000_000, unit: '', whole: true };
            const count = within(readNumber(read[1]!), limits);
            const at =
              read[2] === undefined
                ? null
                : secondsOf(read[2], { name: 'its time', least: 0, most: 3600, unit: 's' });
            return {
              text: `burst of ${count}${at === null ? '' : ` at ${at} s`}`,
              run: (tools) => {
                const made = tools.newId();
                const stretch = tools.effect().stretches.hold.kind === 'none' ? 'opening' : 'hold';
                tools.changeLayers('set a burst', (target) => {
                  const [first] = target.bursts.order;
                  const known = first === undefined ? burst(stretch, 0, count) : target.bursts.byId[first]!;
                  const next = { ...known, count, most: count, at: at ?? known.at };
                  target.bursts = withItem(target.bursts, first ?? made, next);
                });
                tools.leadTo('births', null, 'burst count');
              },
            };
          },
        },
        ...(['from', 'until'] as const).map((end): Target => ({
          id: `births ${end}`,
          text: end === 'from' ? 'births begin' : 'births end',
          otherWords:
            end === 'from'
              ? ['start delay', 'start time', 'wait']
              : ['stop time', 'emission duration', 'stop emitting'],
          detail: `${layer.name} · births`,
          run: ({ leadTo }) => leadTo('births', null, end === 'from' ? 'births begin' : 'births end'),
          take: (text) => {
            const seconds = secondsOf(text, { name: 'the time', least: -3600, most: 3600, unit: 's' });
            return {
              text: `births ${end === 'from' ? 'begin' : 'end'} at ${seconds} s`,
              run: (tools) => {
                tools.changeLayers('set when births happen', (target) => {
                  const known = target.births[end];
                  target.births[end] = { ...(known ?? atBorder('start')), seconds, measure: null };
                });
                tools.leadTo('births', null, end === 'from' ? 'births begin' : 'births end');
              },
            };
          },
        })),
        {
          id: 'rename',
          text: 'name of the layer',
          otherWords: ['rename', 'layer name'],
          detail: layer.name,
          run: ({ leadTo }) => leadTo('source', null, 'layer name'),
          take: (text) => ({
            text: `name: ${text.trim()}`,
            run: (tools) =>
              tools.changeLayers('rename a layer', (target, id) => {
                if (id === layerId) target.name = text.trim().slice(0, 80);
              }),
          }),
        },
      ]
    : [];
  return [
    ...own,
    ...STRETCHES.map(([name, otherWords]): Target => ({
      id: `stretch ${name}`,
      text: name,
      otherWords,
      detail: 'length of a stretch',
      run: ({ focus }) => focus(`${name} in seconds`),
      take: (text) => {
        const seconds = secondsOf(text, { name: `the ${name}`, least: 0, most: 600, unit: 's' });
        return {
          text: `${name}: ${plainNumber(seconds)} s`,
          run: ({ change }) => change(`set the ${name}`, (draft) => setStretch(draft, name, seconds)),
        };
      },
    })),
    {
      id: 'pre-roll',
      text: 'pre-roll',
      otherWords: ['warmed up', 'warm-up', 'already full', 'pre-simulate'],
      detail: 'how long it has held when first seen',
      run: ({ focus }) => focus('pre-roll'),
      take: (text) => {
        const seconds = secondsOf(text, { name: 'the pre-roll', least: 0, most: 60, unit: 's' });
        return {
          text: `pre-roll: ${plainNumber(seconds)} s`,
          run: ({ change }) => change('set the pre-roll', (draft) => (draft.stretches.preRoll = seconds)),
        };
      },
    },
    ...PLAYINGS.map(({ value, text, otherWords }): Target => ({
      id: `plays ${value}`,
      text,
      otherWords,
      detail: 'how the effect plays',
      previews: true,
      run: ({ change }) => change('change how it plays', (draft) => setPlaying(draft, value)),
    })),
    {
      id: 'seed',
      text: 'seed',
      otherWords: ['random seed'],
      detail: 'whole effect',
      run: ({ showWhole, focus }) => {
        showWhole();
        focus('seed');
      },
      take: (text) => {
        const seed = within(readNumber(text), {
          name: 'the seed',
          least: 0,
          most: 2 ** 32 - 1,
          unit: '',
          whole: true,
        });
        return { text: `seed: ${seed}`, run: ({ change }) => change('set the seed', (draft) => (draft.seed = seed)) };
      },
    },
  ];
}
