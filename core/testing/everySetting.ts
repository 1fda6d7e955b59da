import {
  collectionOf,
  COMBINES,
  curveShaper,
  curveThrough,
  gradientShaper,
  listed,
  settingsIn,
  type Combine,
  type ColourSetting,
  type Declaration,
  type Effect,
  type NumberDeclaration,
  type NumberSetting,
  type Reads,
  type Setting,
  type Shaper,
  type VectorSetting,
} from '../document/index.ts';
import { Dice } from './dice.ts';

const range = ({ least, most, byDefault }: NumberDeclaration): readonly [low: number, high: number] => {
  const middle = typeof byDefault === 'number' ? byDefault : byDefault[0];
  const wide = Math.max(0.05, Math.abs(middle)) * 0.5;
  return [Math.max(least, middle - wide), Math.min(most, middle + wide)];
};

/** Reads of a kind: of the one channel and the one dial that random effects have. */
export const readsOf = (kind: Reads['kind']): Reads =>
  kind === 'channel' ? { kind, channel: 'heat' } : kind === 'dial' ? { kind, dial: 'charge' } : { kind };

function shaperOf(declaration: Declaration, kind: Reads['kind'], n: number, dice: Dice): Shaper {
  const combines = COMBINES[declaration.value];
  const combine: Combine = combines[n % combines.length]!;
  const near = declaration.value === 'number' ? range(declaration)[1] : 0.6;
  const [from, to] = combine === 'multiply' ? [dice.number(0.6, 1), 1.2] : [near * 0.7, near];
  const shape =
    declaration.value === 'colour'
      ? gradientShaper([
          [0, { hex: '#ff8800' }],
          [1, { hex: '#0033ff' }],
        ])
      : curveShaper([
          [0, from],
          [1, to],
        ]);
  const amountBy =
    n % 3 === 0 && combine === 'blend'
      ? {
          amountBy: {
            reads: readsOf(kind),
            curve: curveThrough([
              [0, 0.2],
              [1, 0.9],
            ]),
          },
        }
      : {};
  const shaper = { ...shape, reads: readsOf(kind), combine, amount: 0.5, ...amountBy };
  return declaration.value === 'vector' && n % 2 === 0
    ? { ...shaper, axis: (['x', 'y', 'z'] as const)[n % 3]! }
    : shaper;
}

/** The bases that a declaration allows, by kind. */
export function basesOf(declaration: Declaration): readonly string[] {
  switch (declaration.value) {
    case 'number':
      return declaration.bases;
    case 'vector':
      return declaration.mayVary ? ['fixed', 'spread'] : ['fixed'];
    case 'colour':
      return ['fixed', 'spread', 'set', ...(declaration.mayBeTaken ? ['taken'] : [])];
    default:
      return ['fixed'];
  }
}

function setBase(setting: Setting, declaration: Declaration, kind: string, n: number): void {
  if (declaration.value === 'number') {
    const own = setting as NumberSetting;
    const [low, high] = range(declaration).map((x) => (declaration.whole ? Math.ceil(x) : x)) as [number, number];
    if (kind === 'spread') own.base = { kind, low, high };
    if (kind === 'set') own.base = { kind, values: [low, high].map((value, k) => ({ value, weight: 1 + k })) };
    if (kind === 'measure') own.base = { kind, measure: 'size' };
    if (kind === 'taken') own.base = { kind, from: (['u', 'v', 'brightness', 'strength'] as const)[n % 4]! };
  }
  if (declaration.value === 'vector' && kind === 'spread') {
    const own = setting as VectorSetting;
    const value = own.base.kind === 'fixed' ? own.base.value : declaration.byDefault;
    const by = (more: number) =>
      value.map((x) => Math.max(declaration.least, Math.min(declaration.most, x + more))) as [number, number, number];
    own.base = { kind, low: by(-0.2), high: by(0.2) };
  }
  if (declaration.value === 'colour') {
    const own = setting as ColourSetting;
    const [one, other] = [{ hex: '#e0ff60' }, { hex: '#205080' }];
    if (kind === 'spread') own.base = { kind, low: one, high: other };
    if (kind === 'set') own.base = { kind, values: [one, other].map((value, k) => ({ value, weight: 1 + k })) };
    if (kind === 'taken') own.base = { kind, from: n % 2 === 0 ? 'source' : 'parent' };
  }
}

/** What of each declaration was set so far: its bases and what its shapers read. */
export type Covered = Map<string, { readonly bases: Set<string>; readonly reads: Set<Reads['kind']> }>;

/** What tells one declaration from another; a channel is declared by its name. */
export const declarationKey = ({ chapter, help }: Declaration): string => `${chapter}: ${help}`;

/** What is still left of something; where nothing is, whichever's turn it is. */
const leftOf = <T>(all: readonly T[], had: ReadonlySet<T>, n: number): T =>
  all.find((one) => !had.has(one)) ?? all[n % all.length]!;

/** Units of what is counted: a measure of a metre would leave nothing of it. */
const COUNTED: readonly string[] = ['count', '/s', '/m', '/m²'];

/**
 * Gives every number, vector and colour of an effect a base and a shaper: of those that its declaration allows, what no effect
 * before it had, else one in turn.
 */
export function setEverything(effect: Effect, turn: number, covered: Covered): void {
  const dice = new Dice(turn);
  effect.dials = collectionOf([['charge', { kind: 'number', name: 'charge', least: 0, most: 1, value: 0.7 }]]);
  effect.measures = collectionOf([['size', { name: 'size', quantity: 'length', value: 1 }]]);
  settingsIn(effect).forEach(({ setting, declaration }, n) => {
    if (declaration.value === 'choice' || declaration.value === 'switch') return;
    const known = covered.get(declarationKey(declaration)) ?? { bases: new Set(), reads: new Set() };
    covered.set(declarationKey(declaration), known);
    const base = leftOf(basesOf(declaration), known.bases, turn + n);
    known.bases.add(base);
    if (base !== 'measure' || !COUNTED.includes((declaration as NumberDeclaration).unit))
      setBase(setting, declaration, base, n);
    if (declaration.reads.length === 0) return;
    const reads = leftOf(declaration.reads, known.reads, turn + n);
    known.reads.add(reads);
    const shapers = listed(setting.shapers).map(({ id, item }) => [id, item] as const);
    setting.shapers = collectionOf([...shapers, ['every', shaperOf(declaration, reads, turn + n, dice)]]);
  });
}
