import type { NumberDeclaration, NumberSetting } from '@jinx/core/document';
import { percentIn, readNumber, readRange, within, type Limits } from './numbers';

type Base = NumberSetting['base'];
type Bounds = Pick<NumberDeclaration, 'name' | 'least' | 'most' | 'unit' | 'whole'>;

/** How an entry changes one number: `*1.15`, `/2`, `+10`, `-20%`, `+10%`. */
type Relative = (value: number) => number;

const FACTOR = /^\s*([*×/÷])\s*(.+)$/;
const SHARE = /^\s*([+−-])\s*([\d.,]+)\s*%\s*$/;
const PLUS = /^\s*\+(?![−-])\s*(.+)$/;
const AROUND = /^\s*(?:±|\+[−-]|\+\/[−-])\s*(.+)$/;

/**
 * Reads an entry that says how a number changes rather than what it is; null where it is none. A percentage after + or −
 * is a share of the number itself; where a percentage below 0 can be meant, −20% is that.
 * @throws an error with a sentence.
 */
export function readRelative(text: string, limits: Bounds, shown: string = limits.unit): Relative | null {
  const share = SHARE.exec(text);
  if (share && (share[1] === '+' || limits.unit !== '%' || limits.least >= 0)) {
    const by = readNumber(share[2]!) / 100;
    return (value) => value * (share[1] === '+' ? 1 + by : 1 - by);
  }
  const factor = FACTOR.exec(text);
  if (factor) {
    const by = percentIn(factor[2]!) ?? readNumber(factor[2]!);
    if ('/÷'.includes(factor[1]!) && by === 0) throw new Error('Nothing can be divided by 0');
    return (value) => ('*×'.includes(factor[1]!) ? value * by : value / by);
  }
  const plus = PLUS.exec(text);
  if (!plus || AROUND.test(text)) return null;
  const by = readNumber(plus[1]!, { unit: limits.unit, shown });
  return (value) => value + by;
}

/** A set with each of its values changed. */
export const withEach = (base: Extract<Base, { kind: 'set' }>, change: (value: number) => number): Base => ({
  kind: 'set',
  values: base.values.map(({ value, weight }) => ({ value: change(value), weight })),
});

/** What a number begins with once each end of it is changed; what is named or taken has no number of its own to change. */
function changed(base: Base, change: (value: number) => number, limits: Bounds): Base {
  const to = (value: number) => within(change(value), limits);
  if (base.kind === 'fixed') return { kind: 'fixed', value: to(base.value) };
  if (base.kind === 'measure')
    throw new Error(`${limits.name} is measured: change the measure, or type a number for this alone`);
  if (base.kind === 'set') return withEach(base, to);
  if (base.kind !== 'spread') throw new Error(`${limits.name} is taken from elsewhere: type a number instead`);
  const [a, b] = [to(base.low), to(base.high)];
  return { kind: 'spread', low: Math.min(a, b), high: Math.max(a, b) };
}

/** The middle of what a number begins with. */
function middleOf(base: Base, limits: Bounds): number {
  if (base.kind === 'fixed') return base.value;
  if (base.kind === 'spread') return (base.low + base.high) / 2;
  throw new Error(`${limits.name} has no number of its own to be spread about: type one`);
}

/** A spread about the middle of a base, by a share of it or by an amount; within what the number may be. */
export function spreadAbout(base: Base, by: { share: number } | { amount: number }, limits: Bounds): Base {
  const middle = middleOf(base, limits);
  const aside = 'share' in by ? Math.abs(middle) * by.share : by.amount;
  const fit = (value: number) => within(Math.min(limits.most, Math.max(limits.least, value)), limits);
  return { kind: 'spread', low: fit(middle - aside), high: fit(middle + aside) };
}

/**
 * What was typed into a number, as what it does to what the number begins with: `35`, `0.7-0.9`, `1 ± 0.2`, `*1.15`,
 * `+10`, `-20%`, `+-20%`. Without a unit it has the one that is shown. The same entry can be given to several numbers.
 * @throws an error with a sentence, also when what it gives is beyond the limits.
 */
export function readEntry(
  text: string,
  declaration: NumberDeclaration,
  shown: string = declaration.unit,
): (base: Base) => Base {
  const isSpread = declaration.bases.includes('spread');
  const noSpread = () => new Error(`${declaration.name} is one number, not a spread`);
  const several = text.split(/\s+or\s+|\s*\|\s*/);
  if (several.length > 1) {
    if (!declaration.bases.includes('set')) throw new Error(`${declaration.name} is one number, not one of several`);
    return always({ kind: 'set', values: several.map((part) => readWeighted(part, declaration, shown)) });
  }
  const around = AROUND.exec(text);
  if (around) {
    if (!isSpread) throw noSpread();
    const share = percentIn(around[1]!);
    const by =
      share === null
        ? { amount: Math.abs(readNumber(around[1]!, { unit: declaration.unit, shown })) }
        : { share: Math.abs(share) };
    return (base) => spreadAbout(base, by, declaration);
  }
  const relative = readRelative(text, declaration, shown);
  if (relative) return (base) => changed(base, relative, declaration);
  const read = readRange(isSpread ? withRange(text) : text, { unit: declaration.unit, shown });
  const fit = (value: number) => within(value, declaration);
  if (typeof read === 'number') return always({ kind: 'fixed', value: fit(read) });
  if (!isSpread) throw noSpread();
  return always({ kind: 'spread', low: fit(read.low), high: fit(read.high) });
}
/** One of several values, as in "2 cm" or "2 cm ×3": three times as likely as one without. */
function readWeighted(
  text: string,
  declaration: NumberDeclaration,
  shown: string,
): { value: number; weight: number } {
  const [value = '', weight] = text.split(/\s*[×*]\s*/);
  const read = readNumber(value, { unit: declaration.unit, shown });
  return {
    value: within(read, declaration),
    weight:
      weight === undefined ? 1 : within(readNumber(weight), { name: 'a weight', unit: '', least: 0, most: 1000 }),
  };
}
const always = (base: Base) => (): Base => base;

const TWO_NUMBERS = /^\s*(\d*\.?\d+)\s*[-−]\s*(\d*\.?\d+)(\s*[\p{L}°%/²]*)\s*$/u;
/** "0.7-0.9" is a spread, since its second number is the larger; "35-10" stays a sum. */
function withRange(text: string): string {
  const two = TWO_NUMBERS.exec(text);
  return two && Number(two[1]) < Number(two[2]) ? `${two[1]} to ${two[2]}${two[3]}` : text;
}

/** What was typed into a bare number. @throws an error with a sentence. */
export function readPlain(text: string, limits: Limits, value: number): number {
  const relative = readRelative(text, limits as Bounds);
  return within(relative ? relative(value) : readNumber(text, { unit: limits.unit }), limits);
}
