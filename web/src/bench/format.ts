import type { Declaration, NumberDeclaration, NumberSetting } from '@jinx/core/document';

/** Lengths below this many metres read better in centimetres. */
const SMALL_METRES = 0.1;

/** A number as people write it: as many digits as say something. */
export function plainNumber(value: number): string {
  const size = Math.abs(value);
  const digits = size >= 100 ? 0 : size >= 10 ? 1 : size >= 1 ? 2 : 3;
  return String(Number(value.toFixed(digits)));
}

const usesCentimetres = (declaration: NumberDeclaration, values: number[]) =>
  declaration.unit === 'm' &&
  values.some((value) => value !== 0) &&
  values.every((value) => Math.abs(value) < SMALL_METRES);

function unitText(unit: string): string {
  if (unit === '' || unit === 'count') return '';
  return unit === '%' || unit === '°' || unit === '°/s' || unit.startsWith('/') ? unit : `\u00a0${unit}`;
}

/** A number setting's base as a chip shows it. */
export function settingText(
  setting: NumberSetting,
  declaration: NumberDeclaration,
  measureName: (id: string) => string,
): string {
  const { base } = setting;
  if (base.kind === 'measure') return measureName(base.measure);
  if (base.kind === 'taken') return `the ${base.from}'s`;
  if (declaration.zero && base.kind === 'fixed' && base.value === 0) return declaration.zero;
  const values = base.kind === 'fixed' ? [base.value] : [base.low, base.high];
  const isSmall = usesCentimetres(declaration, values);
  const text = values.map((value) => plainNumber(isSmall ? value * 100 : value)).join(' – ');
  return text + unitText(isSmall ? 'cm' : declaration.unit);
}

/** A sum of numbers with + − × ÷ and brackets, such as "2*(3+1)". @throws Error when it is not one. */
export function sumOf(text: string): number {
  let at = 0;
  const source = text.replace(/\s+/g, '').replace(/,/g, '.').replace(/×/g, '*').replace(/÷/g, '/').replace(/−/g, '-');
  const fail = () => new Error(`"${text}" is not a number or a sum`);
  if (/[\d.,]\s+[\d.,]/.test(text)) throw fail();
  const atom = (): number => {
    if (source[at] === '(') {
      at++;
      const inner = sum();
      if (source[at++] !== ')') throw fail();
      return inner;
    }
    if (source[at] === '-') {
      at++;
      return -atom();
    }
    const match = /^\d*\.?\d+(e[-+]?\d+)?/i.exec(source.slice(at));
    if (!match) throw fail();
    at += match[0].length;
    return Number(match[0]);
  };
  const product = (): number => {
    let value = atom();
    while (source[at] === '*' || source[at] === '/') value = source[at++] === '*' ? value * atom() : value / atom();
    return value;
  };
  const sum = (): number => {
    let value = product();
    while (source[at] === '+' || source[at] === '-')
      value = source[at++] === '+' ? value + product() : value - product();
    return value;
  };
  const value = sum();
  if (at !== source.length || !Number.isFinite(value)) throw fail();
  return value;
}

/**
 * What was typed into a chip: a number or a sum, or two with "–" or "to" between for a spread, or "middle ± how far".
 * A trailing unit may be left out; "cm" and "mm" are understood for lengths.
 * @throws Error with a sentence.
 */
export function typedBase(text: string, declaration: NumberDeclaration): NumberSetting['base'] {
  const inCentimetres = declaration.unit === 'm' && /cm\s*$/.test(text);
  const inMillimetres = declaration.unit === 'm' && /mm\s*$/.test(text);
  const bare = text.replace(/\s*(m\/s²|m\/s|°\/s|cm|mm|m|\/s|\/m|s|°|%|×)\s*$/u, '');
  const scale = inMillimetres ? 0.001 : inCentimetres ? 0.01 : 1;
  const within = (value: number) => {
    const { least, most, unit, name } = declaration;
    const fitted = Number(((declaration.whole ? Math.round(value) : value) * scale).toPrecision(6));
    if (fitted < least || fitted > most)
      throw new Error(
        `${name} may be ${least.toLocaleString('en')} to ${most.toLocaleString('en')}${unitText(unit)}`,
      );
    return fitted;
  };
  const around = bare.split('±');
  const parts = bare.split(/\s+to\s+|\s*–\s*|\s+-\s+/);
  if (around.length === 2 || parts.length === 2) {
    if (!declaration.bases.includes('spread')) throw new Error(`${declaration.name} is one number, not a spread`);
    const [a, b] =
      around.length === 2
        ? [sumOf(around[0]!) - sumOf(around[1]!), sumOf(around[0]!) + sumOf(around[1]!)]
        : [sumOf(parts[0]!), sumOf(parts[1]!)];
    return { kind: 'spread', low: Math.min(within(a), within(b)), high: Math.max(within(a), within(b)) };
  }
  return { kind: 'fixed', value: within(sumOf(bare)) };
}

/** The step by which a number is dragged or nudged: about a hundredth of what it is. */
export function stepFor(value: number, declaration: Declaration & { value: 'number' }): number {
  if (declaration.whole) return Math.max(1, Math.round(Math.abs(value) / 100));
  const size = Math.max(Math.abs(value), 0.02 * Math.min(declaration.most - declaration.least, 10));
  return 10 ** Math.floor(Math.log10(size) - 1);
}

const ENTITIES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};
/** A text as HTML that shows it: for libraries that write HTML. */
export const plainHtml = (text: string): string => text.replace(/[&<>"']/g, (sign) => ENTITIES[sign]!);
