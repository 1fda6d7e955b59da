/**
 * Reads and writes numbers as people do, everywhere in the interface. In a field of one number a comma between groups of
 * three digits separates thousands and any other is a decimal comma; in a field of several numbers a comma separates them.
 */

/** What a unit is worth in the first one of its kind. */
const KINDS: readonly Readonly<Record<string, number>>[] = [
  { m: 1, cm: 0.01, mm: 0.001, km: 1000, metre: 1, metres: 1, meter: 1, meters: 1 },
  { s: 1, ms: 0.001, min: 60, sec: 1, second: 1, seconds: 1 },
  { 'm/s': 1, 'cm/s': 0.01, 'km/h': 1 / 3.6 },
  { 'm/s²': 1, 'cm/s²': 0.01 },
  { '°': 1, deg: 1, degree: 1, degrees: 1 },
  { '°/s': 1, 'deg/s': 1 },
  { '/s': 1, '/min': 1 / 60, 'a second': 1, 'per second': 1 },
  { '/m': 1, '/cm': 100 },
  { '/m²': 1, '/cm²': 10_000 },
  { '%': 1, percent: 1 },
  { '×': 1, x: 1 },
];
const UNITS = KINDS.flatMap((kind) => Object.keys(kind)).sort((a, b) => b.length - a.length);

/** How one field is read: the unit its value has, and the one it is shown in, which a bare number is taken in. */
export interface Written {
  /** Of the value; '' or any word that is no unit of measure: it has none. */
  readonly unit: string;
  readonly shown?: string;
}

const notANumber = (text: string) => new Error(`“${text.trim()}” is not a number or a sum`);

/** How many of the value's unit one of another is. @throws an error with a sentence where they measure different things. */
function worth(unit: string, of: string, text: string): number {
  const kind = KINDS.find((units) => of in units);
  const [times, whole] = [kind?.[unit], kind?.[of]];
  if (times !== undefined && whole !== undefined) return times / whole;
  throw new Error(`“${text.trim()}” is in ${unit}; ${kind ? `this is in ${of}` : 'this has no unit'}`);
}

/** A comma between groups of three digits goes; any other becomes a point. */
function withPoints(text: string): string {
  return text
    .replace(/(?<![\d.,])[1-9]\d{0,2}(?:,\d{3})+(?![\d,])/g, (thousands) => thousands.replace(/,/g, ''))
    .replace(/,/g, '.');
}

interface Term {
  readonly value: number;
  readonly unit: string | null;
}

/** The terms of a sum, each with its sign and the unit written after it. */
function termsOf(text: string): Term[] {
  const source = withPoints(text)
    .replace(/×(?=\s*[\d.(])/g, '*')
    .replace(/÷/g, '/')
    .replace(/−/g, '-');
  let at = 0;
  const skip = () => {
    while (/\s/.test(source[at] ?? '')) at++;
  };
  const unitHere = (): string | null => {
    skip();
    const unit = UNITS.find((each) => source.startsWith(each, at));
    return unit !== undefined && !/[\p{L}\d²]/u.test(source[at + unit.length] ?? '') ? unit : null;
  };
  const atom = (): number => {
    skip();
    if (source[at] === '(') {
      at++;
      let inner = product();
      for (skip(); source[at] === '+' || source[at] === '-'; skip())
        inner += source[at++] === '+' ? product() : -product();
      if (source[at++] !== ')') throw notANumber(text);
      return inner;
    }
    if (source[at] === '-' || source[at] === '+') return source[at++] === '-' ? -atom() : atom();
    const match = /^(\d+\.?\d*|\.\d+)(e[-+]?\d+)?/i.exec(source.slice(at));
    if (!match) throw notANumber(text);
    at += match[0].length;
    return Number(match[0]);
  };
  function product(): number {
    let value = atom();
    for (skip(); (source[at] === '*' || source[at] === '/') && unitHere() === null; skip())
      value = source[at++] === '*' ? value * atom() : value / atom();
    return value;
  }
  const terms: Term[] = [];
  let sign = 1;
  for (;;) {
    const value = sign * product();
    const unit = unitHere();
    at += unit?.length ?? 0;
    if (!Number.isFinite(value)) throw notANumber(text);
    terms.push({ value, unit });
    skip();
    if (at === source.length) return terms;
    if (source[at] !== '+' && source[at] !== '-') throw strange(text, source.slice(at));
    sign = source[at++] === '+' ? 1 : -1;
  }
}

/** What follows a number and is neither a sign nor a unit that is known. */
function strange(text: string, rest: string): Error {
  const unit = /^[\p{L}°%²/]+$/u.exec(rest.trim())?.[0];
  return unit ? new Error(`“${unit}” is no unit that is known here`) : notANumber(text);
}

/** Adds terms up, in the value's unit; a term without a unit has the last one's, or the one that is shown. */
function sumOf(terms: readonly Term[], { unit, shown = unit }: Written, text: string, bare = shown): number {
  const taken = terms.at(-1)?.unit ?? bare;
  const total = terms.reduce((sum, term) => {
    const own = term.unit ?? taken;
    return sum + term.value * (own === unit ? 1 : worth(own, unit, text));
  }, 0);
  // Eight digits hide what binary fractions add to centimetres.
  return Number(total.toPrecision(8));
}

/**
 * One number: as it is, as a sum with + − × ÷ and brackets, with a unit or without. Returns it in `written.unit`.
 * @throws an error with a sentence.
 */
export function readNumber(text: string, written: Written = { unit: '' }): number {
  return sumOf(termsOf(text), written, text);
}

/** The share that a percentage is, as 0.2 of “20%”; null for anything else. @throws an error with a sentence. */
export function percentIn(text: string): number | null {
  const percent = /^(.*)%\s*$/.exec(text);
  return percent ? readNumber(percent[1]!) / 100 : null;
}

/** Several numbers with commas, semicolons or blanks between. @throws an error with a sentence. */
export function readNumbers(text: string, written: Written = { unit: '' }): number[] {
  const parts = text
    .trim()
    .split(/\s*[,;]\s*|\s+(?=[-−+]?[\d.])/)
    .filter((part) => part !== '');
  if (parts.length === 0) throw notANumber(text);
  return parts.map((part) => readNumber(part, written));
}

const PLUS_MINUS = /±|\+-|\+\/-/;
const BETWEEN = /\s+to\s+|\s*–\s*|\s+-\s+|(?<=\d)\s*\.\.\s*(?=[-\d.])/;

/**
 * One number, or two ends: "1 to 2", "1 - 2", "1 – 2", "0.4 ± 0.1", "0.4 +- 0.1". A side without a unit has the other's.
 * @throws an error with a sentence.
 */
export function readRange(text: string, written: Written = { unit: '' }): number | { low: number; high: number } {
  const isAround = PLUS_MINUS.test(text);
  const sides = text.split(isAround ? PLUS_MINUS : BETWEEN);
  if (sides.length === 1) return readNumber(text, written);
  if (sides.length !== 2) throw notANumber(text);
  const [first, second] = sides.map(termsOf) as [Term[], Term[]];
  const shown = written.shown ?? written.unit;
  const unit = second.at(-1)?.unit ?? first.at(-1)?.unit ?? shown;
  const [a, b] = [sumOf(first, written, text, unit), sumOf(second, written, text, unit)];
  const [from, to] = isAround ? [a - b, a + b] : [a, b];
  const tidy = (value: number) => Number(value.toPrecision(8));
  return { low: tidy(Math.min(from, to)), high: tidy(Math.max(from, to)) };
}

/** A number as people write it: as many digits as say something. */
export function plainNumber(value: number): string {
  const size = Math.abs(value);
  const digits = size >= 100 ? 0 : size >= 10 ? 1 : size >= 1 ? 2 : 3;
  return String(Number(value.toFixed(digits)));
}

/** A large number with its thousands apart. */
export const countText = (value: number): string => (counts ??= new Intl.NumberFormat('en', COUNTS)).format(value);
const COUNTS = { maximumFractionDigits: 6 } as const;
/** Made once, and not before it is needed: the first takes 40 ms. */
let counts: Intl.NumberFormat | null = null;

/** A unit as it is written after a number. */
export function unitText(unit: string): string {
  if (unit === '' || unit === 'count') return '';
  return unit === '%' || unit === '°' || unit === '°/s' || unit.startsWith('/') ? unit : `\u00a0${unit}`;
}

/** What a field may hold. */
export interface Limits {
  readonly name: string;
  readonly least: number;
  readonly most: number;
  readonly unit: string;
  readonly whole?: boolean;
}

/** The number, made whole where only whole ones are. @throws an error that says the limits where it is beyond them. */
export function within(value: number, { name, least, most, unit, whole }: Limits): number {
  const fitted = whole ? Math.round(value) : Number(value.toPrecision(6));
  if (fitted >= least && fitted <= most) return fitted;
  throw new Error(`${name} may be ${countText(least)} to ${countText(most)}${unitText(unit)}`);
}
