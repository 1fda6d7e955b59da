import type { Colour, ColourSetting, Effect } from '@jinx/core/document';
import { hexOfLinear, resolvedColour } from '@jinx/core/maths';

type Base = ColourSetting['base'];

/** Kinds of what a colour begins with, as a sentence says them. */
export const BASE_KINDS = [
  { value: 'one', text: 'one for all', help: 'Every particle begins with the same colour' },
  { value: 'between', text: 'anywhere between', help: 'Each particle has a colour between two, on an even way' },
  {
    value: 'several',
    text: 'one of',
    help: 'Each particle has one of several colours; weights say how likely each is',
  },
  {
    value: 'source',
    text: 'the mesh’s where it is born',
    help: 'The picture or the vertex colours of the mesh at its spot',
  },
  {
    value: 'parent',
    text: 'its parent’s',
    help: 'The colour of the particle that it is born on, or that set it off',
  },
] as const;
export type BaseKind = (typeof BASE_KINDS)[number]['value'];

export function kindOfBase(base: Base): BaseKind {
  switch (base.kind) {
    case 'fixed':
      return 'one';
    case 'spread':
      return 'between';
    case 'set':
      return 'several';
    case 'taken':
      return base.from;
  }
}

/** The colours that a base names. */
export function coloursOf(base: Base): Colour[] {
  if (base.kind === 'fixed') return [base.value];
  if (base.kind === 'spread') return [base.low, base.high];
  return base.kind === 'set' ? base.values.map(({ value }) => value) : [];
}

/** A darker one of a colour, to begin a second with. */
function darker(colour: Colour, palette: Effect['palette']): Colour {
  const [r, g, b] = resolvedColour(palette, colour);
  return { hex: hexOfLinear([r * 0.25, g * 0.25, b * 0.25]) };
}

/** A base of another kind, which keeps what colours it can. */
export function withBaseKind(base: Base, kind: string, palette: Effect['palette']): Base {
  const [first = { hex: '#ffffff' }, ...rest] = coloursOf(base);
  const all = [first, ...(rest.length > 0 ? rest : [darker(first, palette)])];
  switch (kind as BaseKind) {
    case 'one':
      return { kind: 'fixed', value: first };
    case 'between':
      return { kind: 'spread', low: first, high: all[all.length - 1]! };
    case 'several':
      return { kind: 'set', values: all.map((value) => ({ value, weight: 1 })) };
    case 'source':
    case 'parent':
      return { kind: 'taken', from: kind as 'source' | 'parent' };
  }
}

export function withColour(base: Base, which: number, colour: Colour): Base {
  if (base.kind === 'fixed') return { kind: 'fixed', value: colour };
  if (base.kind === 'spread') return which === 0 ? { ...base, low: colour } : { ...base, high: colour };
  if (base.kind !== 'set') return base;
  return { kind: 'set', values: base.values.map((one, n) => (n === which ? { ...one, value: colour } : one)) };
}

/** A set in which one of the colours is as likely as a weight says; not all may weigh nothing. */
export function withWeight(base: Base, which: number, weight: number): Base {
  if (base.kind !== 'set') return base;
  const values = base.values.map((one, n) => (n === which ? { ...one, weight } : one));
  return values.every((one) => one.weight === 0) ? base : { kind: 'set', values };
}

export const withAnother = (base: Base): Base =>
  base.kind === 'set' ? { kind: 'set', values: [...base.values, { ...base.values[base.values.length - 1]! }] } : base;

export const without = (base: Base, which: number): Base =>
  base.kind === 'set' ? { kind: 'set', values: base.values.filter((_, n) => n !== which) } : base;
