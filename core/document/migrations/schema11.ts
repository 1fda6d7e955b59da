import { LN2, log } from '../../maths/index.ts';
import { inEachEffect, itemsOf, loose, type Loose } from './loose.ts';

/** Steps a second in which a grip took its share of what was beyond a constraint. */
const RATE = 60;
/** The longest time in which something may halve. */
const LONGEST = 60;

/** Seconds in which what loses a share of itself in every step halves. */
function halvesIn(share: number): number {
  if (share >= 1) return 0;
  if (share <= 0) return LONGEST;
  return Math.min(LONGEST, Number((LN2 / (-log(1 - share) * RATE)).toPrecision(6)));
}

/** The value of a curve as schema 10 writes it, at a place among keys that are all shares of a life. */
function valueAt(keys: readonly Loose[], x: number): number {
  const at = (key: Loose) => loose(key['at'])['value'] as number;
  const last = keys.length - 1;
  if (last < 0) return 1;
  if (x <= at(keys[0]!)) return keys[0]!['value'] as number;
  if (x >= at(keys[last]!)) return keys[last]!['value'] as number;
  let n = 0;
  while (x >= at(keys[n + 1]!)) n++;
  const [a, b] = [keys[n]!, keys[n + 1]!];
  if (a['held']) return a['value'] as number;
  const width = at(b) - at(a);
  const t = (x - at(a)) / width;
  const u = 1 - t;
  const slopes = (a['slopeOut'] as number) * u - (b['slopeIn'] as number) * t;
  return (
    (a['value'] as number) * (1 + 2 * t) * u * u +
    (b['value'] as number) * t * t * (3 - 2 * t) +
    width * t * u * slopes
  );
}

/** How finely a curve between two keys is followed. */
const PIECES = 8;

/** A curve of a grip as one of times, straight between places that lie close. */
function timesOf(curve: Loose, gripOf: (value: number) => number): Loose {
  const keys = itemsOf(curve['keys']).sort(
    (a, b) => (loose(a['at'])['value'] as number) - (loose(b['at'])['value'] as number),
  );
  const isEven = keys.every((key) => loose(key['at'])['anchor'] === 'share');
  const pieces = isEven ? Math.max(1, Math.min(PIECES, Math.floor(60 / Math.max(1, keys.length)))) : 1;
  const made = keys.flatMap((key, n): { at: unknown; value: number; held: unknown }[] => {
    const own = { at: key['at'], value: halvesIn(gripOf(key['value'] as number)), held: key['held'] };
    const next = keys[n + 1];
    if (!next || key['held'] || !isEven) return [own];
    const [from, to] = [loose(key['at'])['value'] as number, loose(next['at'])['value'] as number];
    const between = Array.from({ length: pieces - 1 }, (_, k) => {
      const x = from + ((to - from) * (k + 1)) / pieces;
      return { at: { anchor: 'share', value: x }, value: halvesIn(gripOf(valueAt(keys, x))), held: undefined };
    });
    return [own, ...between];
  });
  const slope = (n: number): number => {
    const [a, b] = [made[n], made[n + 1]];
    if (!a || !b || a.held || !isEven) return 0;
    const way = (loose(b.at)['value'] as number) - (loose(a.at)['value'] as number);
    return way > 0 ? (b.value - a.value) / way : 0;
  };
  const byId = Object.fromEntries(
    made.map(({ at, value, held }, n) => [
      `k${n}`,
      { at, value, slopeIn: slope(n - 1), slopeOut: slope(n), ...(held ? { held: true } : {}) },
    ]),
  );
  return { keys: { order: Object.keys(byId), byId } };
}

/** A grip, percent of the excess in every step, as the time in which the excess halves. */
function gripToHalves(grip: Loose, measures: Loose): Loose {
  const base = loose(grip['base']);
  const ofMeasure = () => (loose(loose(measures['byId'])[base['measure'] as string])['value'] ?? 0) as number;
  const times = (percent: unknown) => halvesIn((percent as number) / 100);
  const begun = (
    base['kind'] === 'spread' ? base['high'] : base['kind'] === 'measure' ? ofMeasure() : base['value']
  ) as number;
  const made =
    base['kind'] === 'spread'
      ? { kind: 'spread', low: times(base['high']), high: times(base['low']) }
      : { kind: 'fixed', value: times(begun) };
  // What a shaper made of the grip it makes of the time: worked out for the grip that all began with.
  for (const shaper of itemsOf(grip['shapers'])) {
    const gripOf = (value: number) => {
      const percent =
        shaper['combine'] === 'multiply' ? begun * value : shaper['combine'] === 'add' ? begun + value : value;
      return percent / 100;
    };
    const mapping = loose(shaper['mapping']);
    shaper['mapping'] =
      mapping['kind'] === 'band'
        ? { kind: 'band', low: timesOf(loose(mapping['low']), gripOf), high: timesOf(loose(mapping['high']), gripOf) }
        : { kind: 'curve', curve: timesOf(loose(mapping['curve']), gripOf) };
    if (shaper['combine'] !== 'blend') shaper['combine'] = 'replace';
  }
  return { ...grip, base: made };
}

/** What a number of a ribbon was, its measure looked up; muted it was as it is by default. */
function percentOf(setting: unknown, otherwise: number, measures: Loose): number {
  const { base, muted } = loose(setting) as { base?: Loose; muted?: boolean };
  if (!base || muted) return otherwise;
  if (base['kind'] === 'measure')
    return (loose(loose(measures['byId'])[base['measure'] as string])['value'] ?? 0) as number;
  return base['value'] as number;
}

const plain = (value: unknown): Loose => ({
  base: { kind: 'fixed', value },
  shapers: { order: [], byId: {} },
  muted: false,
});

/** Widths at both ends and in the middle, as one width along the length: the cubic that they were, exactly. */
function ribbonWidth(drawn: Loose, measures: Loose): void {
  const { atHead, atTail, bulge, ...settings } = loose(drawn['settings']);
  const head = percentOf(atHead, 100, measures) / 100;
  const tail = percentOf(atTail, drawn['kind'] === 'trail' ? 0 : 100, measures) / 100;
  const swell = percentOf(bulge, 100, measures) / 100 - 1;
  const width = plain(100);
  if (head !== 1 || tail !== 1 || swell !== 0) {
    const key = (at: number, value: number, slope: number) => ({
      at: { anchor: 'share', value: at },
      value,
      slopeIn: slope,
      slopeOut: slope,
    });
    const curve = {
      keys: {
        order: ['head', 'tail'],
        byId: {
          head: key(0, head, tail - head + 4 * head * swell),
          tail: key(1, tail, tail - head - 4 * tail * swell),
        },
      },
    };
    const along = {
      reads: { kind: 'along' },
      mapping: { kind: 'curve', curve },
      combine: 'multiply',
      amount: 1,
      muted: false,
    };
    width['shapers'] = { order: ['along'], byId: { along } };
  }
  drawn['settings'] = { ...settings, width, opacity: plain(100), colour: plain({ hex: '#ffffff' }) };
}

/** Each colour of a set was as likely as any other. */
function weighSets(value: unknown): void {
  if (Array.isArray(value)) return value.forEach(weighSets);
  if (typeof value !== 'object' || value === null) return;
  const base = loose((value as Loose)['base']);
  if (base['kind'] === 'set')
    base['values'] = (base['values'] as unknown[]).map((colour) => ({ value: colour, weight: 1 }));
  Object.values(value).forEach(weighSets);
}

function change(effect: Loose): void {
  effect['schema'] = 11;
  const measures = loose(effect['measures']);
  const layers = itemsOf(effect['layers']);
  weighSets(effect);
  for (const force of [...itemsOf(effect['forces']), ...layers.flatMap((layer) => itemsOf(layer['forces']))]) {
    if (force['kind'] !== 'limit' && force['kind'] !== 'orbit') continue;
    const { grip, ...settings } = loose(force['settings']);
    force['settings'] = { ...settings, halves: gripToHalves(loose(grip), measures) };
  }
  for (const layer of layers) {
    const drawn = loose(layer['drawn']);
    if (['trail', 'strand', 'blade', 'beam'].includes(drawn['kind'] as string)) ribbonWidth(drawn, measures);
  }
}

/**
 * Schema 11: constraints say in what time an excess halves; ribbons have one width along their length, an opacity and a
 * colour; values of a set have weights.
 */
export const toSchema11 = (document: Loose): Loose => inEachEffect(document, change);
