import {
  curveShaper,
  listed,
  unmeasured,
  withItem,
  withoutItem,
  type Collection,
  type Colour,
  type ColourDeclaration,
  type ColourSetting,
  type Declaration,
  type Effect,
  type Id,
  type NumberDeclaration,
  type NumberSetting,
  type Reads,
  type Setting,
  type Stop,
  type Vector,
  type VectorDeclaration,
  type VectorSetting,
} from '@jinx/core/document';
import { readEntry } from '../entry/entry';
import { settingText, shownUnit } from '../entry/format';
import { percentIn, readNumber, readNumbers, within } from '../entry/numbers';
import { Finder } from '../pick/finder';
import { WAYS } from '../values/axes';
import { changeBase } from '../values/measured';
import { choicesOf } from '../choices/choices';
import { hexTyped } from '../values/colour';
import { ageGradient, READY_SHAPES, readyCurveOf, setAgeCurve, setAgeGradient } from '../values/shapers';
import { curveOf, placesOf, readList } from './curveWords';

/** What a value that was typed makes of a setting, and how it reads. */
export interface Taken {
  readonly text: string;
  readonly recipe: (setting: Setting, draft: Effect) => void;
}
/** What a value is read for: the setting as it is, and what is around it. */
export interface Around {
  readonly setting: Setting;
  readonly declaration: Declaration;
  readonly effect: Effect;
  /** Seconds that a particle lives. */
  readonly life: number;
  readonly newId: () => Id;
}

/** What places may be. */
export const METRES = { least: -1000, most: 1000, unit: 'm' } as const;

/** Two numbers with a dash between, which vectors do not take for a sum. */
const SPREAD = /^\s*[\d.]+\s*[-–−]\s*[\d.]+\s*\D*$/;
/** Three numbers, one for all three, or a direction by a word. @throws an error with a sentence. */
export function readVector(
  text: string,
  limits: { name: string; least: number; most: number; unit: string },
): Vector {
  const named = WAYS[text.trim().toLowerCase()];
  if (named) return [...named];
  // "0-360" would be read as one sum, for all three.
  if (SPREAD.test(text)) throw new Error(`${limits.name} takes three numbers, as in 0, 1.2, -3, and no spread`);
  const values = readNumbers(text, { unit: limits.unit }).map((value) => within(value, limits));
  const [x = 0, y = x, z = x] = values;
  if (values.length !== 1 && values.length !== 3)
    throw new Error(`${limits.name} takes three numbers, as in 0, 1.2, -3`);
  return [x, y, z];
}

/** A vector, or two that each particle's own lies between: `-180 to 180`, `0, 0, 0 to 10, 360, 10`. */
function readVectorBase(text: string, declaration: VectorDeclaration): VectorSetting['base'] {
  const range = SPREAD.test(text) ? text.replace(/[-–−]/, ' to ') : text;
  const [low, high, ...more] = range.split(/\s+to\s+/);
  if (!declaration.mayVary || high === undefined || more.length > 0)
    return { kind: 'fixed', value: readVector(text, declaration) };
  return { kind: 'spread', low: readVector(low!, declaration), high: readVector(high, declaration) };
}

const OVER =
  /(?:^|\s+)(?:over|by|along)\s+(age|life|time|effect time|the effect’s time|stretch|the stretch’s time|length|its length|the length)\s*[:]?\s*/i;
const READS: Readonly<Record<string, Reads>> = {
  age: { kind: 'age' },
  life: { kind: 'age' },
  time: { kind: 'effectTime' },
  'effect time': { kind: 'effectTime' },
  'the effect’s time': { kind: 'effectTime' },
  length: { kind: 'along' },
  'its length': { kind: 'along' },
  'the length': { kind: 'along' },
  stretch: { kind: 'stretchTime' },
  'the stretch’s time': { kind: 'stretchTime' },
};

/** A share of a curve: in percent, or as a number that multiplies. */
const readShare = (text: string): number => percentIn(text) ?? readNumber(text);

function readShaper(text: string, reads: Reads, around: Around): (setting: NumberSetting) => void {
  const ready = READY_SHAPES.find(({ name }) => name === text.trim().toLowerCase());
  const curve = ready ? readyCurveOf(ready.points) : curveOf(readList(text), around.life, readShare);
  return (setting) => {
    if (reads.kind === 'age') return setAgeCurve(setting, curve, around.newId());
    const found = listed(setting.shapers).find(({ item }) => item.reads.kind === reads.kind);
    const shaper = { ...(found?.item ?? curveShaper([[0, 1]])), reads, mapping: { kind: 'curve' as const, curve } };
    setting.shapers = withItem(setting.shapers, found?.id ?? around.newId(), shaper);
  };
}

function readNumberValue(text: string, around: Around): Taken {
  const declaration = around.declaration as NumberDeclaration;
  const setting = around.setting as NumberSetting;
  const ready = READY_SHAPES.find(({ name }) => name === text.trim().toLowerCase());
  const over = OVER.exec(text);
  const reads: Reads | null = over ? READS[over[1]!.toLowerCase()]! : ready ? { kind: 'age' } : null;
  if (reads && !declaration.reads.includes(reads.kind))
    throw new Error(`${declaration.name} is not shaped by ${over ? over[1]! : 'age'}`);
  const baseText = reads ? (over ? text.slice(0, over.index).trim() : '') : text;
  const shape = reads ? readShaper(over ? text.slice(over.index + over[0].length) : text, reads, around) : null;
  const entry = baseText === '' ? null : readEntry(baseText, declaration, shownUnit(setting, declaration));
  const after: NumberSetting = {
    ...setting,
    base: entry ? entry(unmeasured(setting.base, around.effect)) : setting.base,
  };
  const measureName = (id: string) => around.effect.measures.byId[id]?.name ?? 'a measure';
  const shaped = shape ? ', shaped' : '';
  return {
    text: `${declaration.name}: ${settingText(after, declaration, measureName)}${shaped}`.replace(/\u00a0/g, ' '),
    recipe: (target, draft) => {
      const own = target as NumberSetting;
      if (entry) changeBase(draft, own, entry);
      if (shape) shape(own);
    },
  };
}

/** A colour by its name in the palette, or typed. @throws an error with a sentence. */
export function readColour(text: string, { palette }: Pick<Effect, 'palette'>): Colour {
  const named = listed(palette).find(({ item }) => item.name.toLowerCase() === text.trim().toLowerCase());
  if (named) return { palette: named.id };
  const hex = hexTyped(text);
  if (hex === null) throw new Error(`“${text.trim()}” is no colour: type one as #8fe0d0, by name, or of the palette`);
  return { hex };
}

/** What colours of particles' own begin with: between two, one of several, taken; null where one colour or a gradient is meant. */
function readColourBase(text: string, effect: Effect): ColourSetting['base'] | null {
  const taken = /^(?:taken )?from (?:the |its )?(mesh|texture|source|skin|parent)(?:’s colour)?$/i.exec(text.trim());
  if (taken) return { kind: 'taken', from: /parent/i.test(taken[1]!) ? 'parent' : 'source' };
  const between = /^(?:anywhere )?between (.+) and (.+)$/i.exec(text.trim());
  if (between) return { kind: 'spread', low: readColour(between[1]!, effect), high: readColour(between[2]!, effect) };
  const several = /^one of (.+)$/i.exec(text.trim())?.[1] ?? (/\sor\s/i.test(text) ? text : null);
  if (several === null) return null;
  const values = several.split(/\s*,\s*|\s+or\s+/i).map((part) => {
    const [name = '', weight] = part.split(/\s*[×*]\s*/);
    return { value: readColour(name, effect), weight: weight === undefined ? 1 : readNumber(weight) };
  });
  return { kind: 'set', values };
}

function readColourValue(text: string, { effect, declaration, newId }: Around): Taken {
  const base = readColourBase(text, effect);
  if (base?.kind === 'taken' && !(declaration as ColourDeclaration).mayBeTaken)
    throw new Error(`${declaration.name} is not kept at birth: it cannot be taken`);
  if (base)
    return {
      text: `${declaration.name}: ${text.trim()}`,
      recipe: (target) => ((target as ColourSetting).base = base),
    };
  const list = readList(text.replace(/^over\s+(age|life)\s*:?\s*/i, ''));
  const colours = list.map((one) => readColour(one.text, effect));
  const words = list.map((one) => one.text).join(' to ');
  if (colours.length === 1)
    return {
      text: `${declaration.name}: ${words}`,
      recipe: (target) => {
        const own = target as ColourSetting;
        own.base = { kind: 'fixed', value: colours[0]! };
        const gradient = ageGradient(own);
        if (gradient) own.shapers = withoutItem(own.shapers, gradient.id);
      },
    };
  if (!declaration.reads.includes('age')) throw new Error(`${declaration.name} is one colour, not a gradient`);
  const places = placesOf(list);
  const ids = colours.map(() => newId());
  const stops: Collection<Stop> = {
    order: ids,
    byId: Object.fromEntries(ids.map((id, n) => [id, { at: places[n]!, colour: colours[n]! }])),
  };
  return {
    text: `${declaration.name} over age: ${words}`,
    recipe: (target) => setAgeGradient(target as ColourSetting, stops, newId()),
  };
}

const YES_NO: Readonly<Record<string, boolean>> = { on: true, yes: true, off: false, no: false };

/** What a typed value makes of a setting. @throws an error with a sentence where it is none that the setting can have. */
export function readValue(text: string, around: Around): Taken {
  const { declaration } = around;
  const { name } = declaration;
  switch (declaration.value) {
    case 'number':
      return readNumberValue(text, around);
    case 'colour':
      return readColourValue(text, around);
    case 'vector': {
      const base = readVectorBase(text, declaration);
      const words = base.kind === 'fixed' ? [base.value] : [base.low, base.high];
      return {
        text: `${name}: ${words.map((value) => value.join(', ')).join(' to ')}`,
        recipe: (target) => (target.base = base as never),
      };
    }
    case 'choice': {
      const [found] = new Finder(choicesOf(declaration)).find(text, 1);
      if (!found) throw new Error(`${name} has no choice “${text}”`);
      return {
        text: `${name}: ${found.text}`,
        recipe: (target) => (target.base = { kind: 'fixed', value: found.value } as never),
      };
    }
    case 'switch': {
      const words = declaration.words ? [declaration.words.yes, declaration.words.no] : ['on', 'off'];
      const at = words.findIndex((word) => word.toLowerCase().startsWith(text.trim().toLowerCase()));
      const value = YES_NO[text.trim().toLowerCase()] ?? (at < 0 ? null : at === 0);
      if (value === null) throw new Error(`${name} is on or off`);
      return {
        text: `${name}: ${words[value ? 0 : 1]}`,
        recipe: (target) => (target.base = { kind: 'fixed', value } as never),
      };
    }
  }
}
