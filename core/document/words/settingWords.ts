import {
  type Colour,
  type Curve,
  type Declaration,
  type KeyPlace,
  listed,
  type NumberDeclaration,
  type Setting,
  type Shaper,
  type Stop,
} from '../../settings/index.ts';
import type { Effect } from '../schema/index.ts';
import { plain } from '../plain.ts';

/** What names are looked up in. */
export type Named = Pick<
  Effect,
  'palette' | 'measures' | 'dials' | 'channels' | 'layers' | 'stage' | 'looks' | 'fronts' | 'groups'
>;

export const withUnit = (value: string, unit: string): string =>
  unit === '' || unit === 'count'
    ? value
    : unit === '%' || unit.startsWith('°') || unit.startsWith('/')
      ? `${value}${unit}`
      : `${value} ${unit}`;

const colourText = (colour: Colour, { palette }: Pick<Named, 'palette'>): string =>
  'hex' in colour ? colour.hex : (palette.byId[colour.palette]?.name ?? 'a colour of the palette');

/** A choice as its chip says it. */
export const choiceWord = (declared: Declaration, value: string): string =>
  (declared.value === 'choice' ? declared.words?.[value] : undefined) ?? value;
/** What a switch says when it is on, and off. */
export const switchWords = (declared: Declaration): { yes: string; no: string } =>
  (declared.value === 'switch' ? declared.words : undefined) ?? { yes: 'yes', no: 'no' };

function baseText(base: Setting['base'], declaration: Declaration, effect: Named): string {
  const unit = declaration.value === 'number' || declaration.value === 'vector' ? declaration.unit : '';
  const vector = (value: readonly number[]) => value.map(plain).join(', ');
  const one = (value: unknown): string => {
    if (typeof value === 'number') {
      const { zero } = declaration as NumberDeclaration;
      return value === 0 && zero ? zero : withUnit(plain(value), unit);
    }
    if (Array.isArray(value)) return withUnit(vector(value as number[]), unit);
    if (typeof value === 'boolean') return switchWords(declaration)[value ? 'yes' : 'no'];
    return typeof value === 'string' ? choiceWord(declaration, value) : colourText(value as Colour, effect);
  };
  switch (base.kind) {
    case 'fixed':
      return one(base.value);
    case 'spread':
      if (typeof base.low === 'number') return withUnit(`${plain(base.low)} to ${plain(base.high as number)}`, unit);
      return Array.isArray(base.low)
        ? withUnit(`${vector(base.low)} to ${vector(base.high as number[])}`, unit)
        : `${colourText(base.low, effect)} to ${colourText(base.high as Colour, effect)}`;
    case 'set':
      return `one of ${base.values.map(({ value, weight }) => `${one(value)}${weight === 1 ? '' : ` × ${plain(weight)}`}`).join(', ')}`;
    case 'measure':
      return `the measure ${effect.measures.byId[base.measure]?.name ?? ''}`.trim();
    case 'taken':
      return `taken from ${TAKEN[base.from]}`;
  }
}

/** What a base may be taken from, in words. */
export const TAKEN = {
  source: 'the source',
  parent: 'the parent',
  u: 'U there',
  v: 'V there',
  brightness: 'the brightness there',
  strength: 'the strength of the blow',
} as const;

const placeText = ({ anchor, value }: KeyPlace): string =>
  anchor === 'share'
    ? `${plain(value * 100)}%`
    : `${plain(value)} s ${anchor === 'afterBirth' ? 'after birth' : 'before death'}`;
const curveText = ({ keys }: Curve): string =>
  listed(keys)
    .map(({ item }) => `${placeText(item.at)}: ${plain(item.value)}${item.held ? ' held' : ''}`)
    .join(', ');

/** What shapers read, in words. */
export const READS_WORDS: Record<Shaper['reads']['kind'], string> = {
  age: 'age',
  effectTime: 'the effect’s time',
  stretchTime: 'the stretch’s time',
  speed: 'speed',
  distance: 'distance travelled',
  carrierSpeed: 'the speed of what carries it',
  aimDistance: 'the distance to its aim',
  along: 'the length from head to tail',
  channel: 'channel',
  dial: 'dial',
};
const COMBINED: Record<Shaper['combine'], string> = {
  multiply: 'multiplied',
  add: 'added',
  replace: 'replaced',
  blend: 'blended',
};

function readsWords(reads: Shaper['reads'], effect: Named): string {
  if (reads.kind === 'channel') return `the channel ${effect.channels.byId[reads.channel]?.name ?? ''}`;
  if (reads.kind === 'dial') return `the dial ${effect.dials.byId[reads.dial]?.name ?? ''}`;
  return READS_WORDS[reads.kind];
}

const stopText = ({ at, colour, opacity = 1 }: Stop, effect: Named): string =>
  `${placeText(at)}: ${colourText(colour, effect)}${opacity === 1 ? '' : ` at ${plain(opacity * 100)}%`}`;

function shaperText({ reads, mapping, combine, amount, amountBy, axis, muted }: Shaper, effect: Named): string {
  const by = `${readsWords(reads, effect)}${axis ? ` on ${axis}` : ''}`;
  const shape =
    mapping.kind === 'curve'
      ? curveText(mapping.curve)
      : mapping.kind === 'band'
        ? `between (${curveText(mapping.low)}) and (${curveText(mapping.high)})`
        : listed(mapping.stops)
            .map(({ item }) => stopText(item, effect))
            .join(', ');
  const changing = amountBy ? ` with ${readsWords(amountBy.reads, effect)} [${curveText(amountBy.curve)}]` : '';
  const how = combine === 'blend' ? `${COMBINED[combine]} by ${plain(amount)}${changing}` : COMBINED[combine];
  return `${muted ? 'muted: ' : ''}by ${by}, ${how} (${shape})`;
}

/** A setting in words: what it begins with, and what shapes it. */
export function settingWords(setting: Setting, declaration: Declaration, effect: Named): string {
  const shapers = listed(setting.shapers).map(({ item }) => shaperText(item, effect));
  return `${setting.muted ? 'muted: ' : ''}${[baseText(setting.base, declaration, effect), ...shapers].join('; ')}`;
}
