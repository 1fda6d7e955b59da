import {
  listed,
  type Declaration,
  type Given,
  type NumberDeclaration,
  type NumberSetting,
  type Shaper,
} from '@jinx/core/document';
import { plainNumber, unitText } from './numbers';

/** Lengths below this many metres read better in centimetres. */
const SMALL_METRES = 0.1;

const usesCentimetres = (declaration: NumberDeclaration, values: number[]) =>
  declaration.unit === 'm' &&
  values.some((value) => value !== 0) &&
  values.every((value) => Math.abs(value) < SMALL_METRES);

/** The unit a chip shows a base in: lengths that are all small in centimetres. What is typed without a unit has it too. */
export function shownUnit({ base }: NumberSetting, declaration: NumberDeclaration): string {
  const values =
    base.kind === 'fixed'
      ? [base.value]
      : base.kind === 'spread'
        ? [base.low, base.high]
        : base.kind === 'set'
          ? base.values.map(({ value }) => value)
          : [];
  return usesCentimetres(declaration, values) ? 'cm' : declaration.unit;
}

/** What a number takes from where a particle is born, as a chip shows it. */
export const GIVEN_WORDS: Readonly<Record<Given, string>> = {
  u: 'U there',
  v: 'V there',
  brightness: 'brightness there',
  strength: 'strength of the blow',
};

export const GIVEN_HELP: Readonly<Record<Given, string>> = {
  u: 'Across the mesh at the spot where it is born, 0 to 1',
  v: 'Up the mesh at the spot where it is born, 0 to 1',
  brightness: 'How bright the picture and the vertex colours of the mesh are there, 0 to 1',
  strength: 'Of the blow that it is born of, 1 at full strength',
};

/** A number setting's base as a chip shows it. */
export function settingText(
  setting: NumberSetting,
  declaration: NumberDeclaration,
  measureName: (id: string) => string,
): string {
  const { base } = setting;
  if (base.kind === 'measure') return measureName(base.measure);
  if (base.kind === 'taken') return GIVEN_WORDS[base.from];
  if (declaration.zero && base.kind === 'fixed' && base.value === 0) return declaration.zero;
  const values =
    base.kind === 'fixed'
      ? [base.value]
      : base.kind === 'spread'
        ? [base.low, base.high]
        : base.values.map(({ value }) => value);
  const shown = shownUnit(setting, declaration);
  const weights = base.kind === 'set' ? base.values.map(({ weight }) => weight) : [];
  const text = values
    .map((value, n) => {
      const plain = plainNumber(shown === 'cm' ? value * 100 : value);
      return (weights[n] ?? 1) === 1 ? plain : `${plain} ×${plainNumber(weights[n]!)}`;
    })
    .join(base.kind === 'set' ? ' or ' : ' – ');
  return text + unitText(shown);
}

/** The largest that a shaper makes of what it shapes; Infinity where it does more than multiply by a curve. */
function largestOf({ combine, mapping }: Shaper): number {
  if (combine !== 'multiply' || mapping.kind === 'gradient') return Infinity;
  const curves = mapping.kind === 'curve' ? [mapping.curve] : [mapping.low, mapping.high];
  return Math.max(...curves.flatMap(({ keys }) => listed(keys).map(({ item }) => item.value)));
}

/** A number setting as a chip shows it: what is shaped says so, as "up to 100%" or "100%, shaped". */
export function shapedText(
  setting: NumberSetting,
  declaration: NumberDeclaration,
  measureName: (id: string) => string,
): string {
  const text = settingText(setting, declaration, measureName);
  const acting = setting.muted ? [] : listed(setting.shapers).filter(({ item }) => !item.muted);
  if (acting.length === 0) return text;
  return acting.every(({ item }) => largestOf(item) <= 1) ? `up to ${text}` : `${text}, shaped`;
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
