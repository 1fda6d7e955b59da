import {
  activeHits,
  type Effect,
  type Id,
  type Layer,
  lineageOf,
  LINK_SETTINGS,
  listed,
  ownerOf,
  shownLayers,
  timedBursts,
} from '../document/index.ts';
import { dialShares, EffectClock, newReading, NumberReader, numberReader, windowOf } from '../simulation/index.ts';
import { lifetimesOf } from './lifeSamples.ts';
import { mostOf } from './numbers.ts';

/** Parts into which the time sheet is cut to tell where something lives. */
export const PRESENCE_CELLS = 240;

/** Where along the time sheet particles of a layer are born and may live: a cell is 1 where they do. */
export interface Presence {
  readonly born: Uint8Array;
  /** The first time through. */
  readonly alive: Uint8Array;
  /** In every later turn of the hold. */
  readonly again: Uint8Array;
}

/** A part of the time sheet, in seconds from its left end. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

interface Sheet {
  readonly clock: EffectClock;
  readonly seconds: number;
  /** The cells of the hold. */
  readonly holdFrom: number;
  readonly holdTo: number;
}

/** The sheet as it is when the effect is let go after one turn of its hold. */
export function sheetClock({ stretches }: Pick<Effect, 'stretches'>): EffectClock {
  const { opening, hold } = new EffectClock(stretches);
  return new EffectClock(stretches, opening + hold);
}

function sheetOf(effect: Effect): Sheet {
  const clock = sheetClock(effect);
  const seconds = clock.length / PRESENCE_CELLS;
  const cell = (time: number) => Math.floor(time / Math.max(1e-9, seconds) + 0.5);
  return { clock, seconds, holdFrom: cell(clock.opening), holdTo: cell(clock.opening + clock.hold) };
}

const cellOf = (time: number, { seconds }: Sheet): number =>
  Math.min(PRESENCE_CELLS - 1, Math.max(0, Math.floor(time / seconds)));

/** Marks each cell that comes `from` to `to` seconds after a marked one. */
function spread(out: Uint8Array, marks: Uint8Array, [from, to]: Delay, { seconds }: Sheet): void {
  const first = Math.floor(from / seconds);
  const last = Math.min(PRESENCE_CELLS, Math.ceil(to / seconds));
  for (let i = 0; i < PRESENCE_CELLS; i++)
    if (marks[i]) out.fill(1, Math.min(PRESENCE_CELLS, i + first), Math.min(PRESENCE_CELLS, i + last + 1));
}

/** The same within the hold alone, whose end is its beginning. */
function spreadRound(out: Uint8Array, marks: Uint8Array, [from, to]: Delay, sheet: Sheet): void {
  const { holdFrom, holdTo, seconds } = sheet;
  const turn = holdTo - holdFrom;
  if (turn <= 0) return;
  const first = Math.floor(from / seconds);
  const last = Math.min(first + turn, Math.ceil(to / seconds));
  for (let i = holdFrom; i < holdTo; i++)
    if (marks[i]) for (let k = i + first; k <= i + last; k++) out[holdFrom + ((k - holdFrom) % turn)] = 1;
}

/** The first time along the sheet, or every later turn of the hold. */
interface Pass {
  readonly isAgain: boolean;
  readonly spread: (out: Uint8Array, marks: Uint8Array, delay: Delay, sheet: Sheet) => void;
}
type Delay = readonly [from: number, to: number];
const FIRST: Pass = { isAgain: false, spread };
const AGAIN: Pass = { isAgain: true, spread: spreadRound };

/** When births may happen. A hold that runs on passes the beginning once; what has ended before it is let go has ended. */
function windowIn(layer: Layer, effect: Effect, { clock }: Sheet, { isAgain }: Pass): [from: number, until: number] {
  const { from, until } = windowOf(layer, effect, clock);
  if (!isAgain || clock.isSeamless) return [from, until];
  return until >= clock.closesAt ? [-Infinity, Infinity] : [Infinity, Infinity];
}

function bornByItself(effect: Effect, layer: Layer, sheet: Sheet, pass: Pass): Uint8Array {
  const born = new Uint8Array(PRESENCE_CELLS);
  const { clock, seconds } = sheet;
  if (layer.source.kind === 'hits') {
    for (const { item } of activeHits(layer.source)) born[cellOf(clock.startOf(item.stretch) + item.at, sheet)] = 1;
    return born;
  }
  const [from, until] = windowIn(layer, effect, sheet, pass);
  const rate = numberReader(layer, 'births.rate', effect);
  const follows = mostOf(layer.settings['births.perMetre'], effect) > 0;
  const reading = { ...newReading(), dials: dialShares(effect) };
  for (let i = 0; i < PRESENCE_CELLS; i++) {
    const time = (i + 0.5) * seconds;
    if (time < from - seconds || time > until || time > clock.endsAt) continue;
    reading.effectTime = (i + 0.5) / PRESENCE_CELLS;
    if (follows || rate.read(reading) > 0) born[i] = 1;
  }
  for (const { item } of timedBursts(layer, effect))
    for (let time = 0; time < item.times; time++) {
      const at = clock.startOf(item.stretch) + item.at + time * item.every;
      if (item.most > 0 && at >= from && at < Math.min(until, clock.endsAt + seconds)) born[cellOf(at, sheet)] = 1;
    }
  return born;
}

/** When a link bears after what it listens to: seconds from and to. */
function delayOf(link: Layer['links']['byId'][string], effect: Effect): Delay {
  const reader = new NumberReader(link.settings.delay, LINK_SETTINGS.delay, 'delay', effect);
  return [reader.low, reader.high];
}

/** Whether some of a layer's particles live as long as the effect does. */
export const standsIn = ({ settings }: Layer, effect: Effect): boolean =>
  mostOf(settings['births.standing'], effect) > 0 || mostOf(settings['births.perArea'], effect) > 0;

/** Where each layer's particles are born and may live in one pass, in the order in which they set each other off. */
function passed(effect: Effect, sheet: Sheet, pass: Pass): Map<Id, { born: Uint8Array; alive: Uint8Array }> {
  const found = new Map<Id, { born: Uint8Array; alive: Uint8Array }>();
  const { order, refused } = lineageOf(effect);
  const sent = new Map<Id, Uint8Array>();
  for (const id of order) {
    const layer = effect.layers.byId[id]!;
    const born = bornByItself(effect, layer, sheet, pass);
    if (layer.source.kind === 'particles') {
      const parents = found.get(layer.source.layer)?.alive;
      for (let i = 0; i < PRESENCE_CELLS; i++) if (!parents?.[i]) born[i] = 0;
    }
    sent.get(id)?.forEach((isSent, i) => isSent && (born[i] = 1));
    const life = lifetimesOf(layer, effect.measures);
    const alive = new Uint8Array(PRESENCE_CELLS);
    // Held by a front it waits, however long, for its life to begin.
    pass.spread(alive, born, [0, layer.front ? sheet.clock.length : life[2]], sheet);
    const begun = Uint8Array.from(born);
    if (standsIn(layer, effect)) {
      const from = cellOf(windowOf(layer, effect, sheet.clock).from, sheet);
      alive.fill(1, pass.isAgain ? 0 : from);
      if (!pass.isAgain) begun[from] = 1;
    }
    found.set(id, { born, alive });
    for (const { id: linkId, item } of listed(layer.links)) {
      if (item.muted || refused.has(`${id}/${linkId}`)) continue;
      const births = sent.get(item.layer) ?? new Uint8Array(PRESENCE_CELLS);
      sent.set(item.layer, births);
      const delay = delayOf(item, effect);
      if (item.on === 'birth') pass.spread(births, begun, delay, sheet);
      else if (item.on === 'death') pass.spread(births, born, [life[0] + delay[0], life[2] + delay[1]], sheet);
      else pass.spread(births, alive, delay, sheet);
    }
  }
  return found;
}

/** Where along the time sheet the particles of every layer are born and may live. */
export function presenceOf(effect: Effect): ReadonlyMap<Id, Presence> {
  const sheet = sheetOf(effect);
  const first = passed(effect, sheet, FIRST);
  const again = passed(effect, sheet, AGAIN);
  return new Map([...first].map(([id, own]) => [id, { ...own, again: again.get(id)!.alive }]));
}

/** Parts of the time sheet in which no layer that is shown may live, `least` seconds long at least. */
export function deadSpans(effect: Effect, presence = presenceOf(effect), least = 0.12): Span[] {
  const sheet = sheetOf(effect);
  if (sheet.clock.length === 0) return [];
  const shown = [...shownLayers(effect)].flatMap((id) => presence.get(ownerOf(effect, id)) ?? []);
  if (shown.length === 0) return [];
  const isHeld = (i: number) => i >= sheet.holdFrom && i < sheet.holdTo;
  const isDead = (i: number) =>
    (!(isHeld(i) && sheet.clock.preRoll > 0) && shown.every(({ alive }) => !alive[i])) ||
    (isHeld(i) && shown.every(({ again }) => !again[i]));
  const spans: Span[] = [];
  // What is pre-rolled is first seen as its hold begins.
  for (let i = sheet.clock.preRoll > 0 ? sheet.holdFrom : 0; i < PRESENCE_CELLS; i++) {
    if (!isDead(i)) continue;
    const from = i;
    while (i < PRESENCE_CELLS && isDead(i)) i++;
    if ((i - from) * sheet.seconds >= least) spans.push({ from: from * sheet.seconds, to: i * sheet.seconds });
  }
  return spans;
}
