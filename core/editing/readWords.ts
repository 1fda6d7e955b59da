import {
  choiceWord,
  type Colour,
  type Curve,
  curveThrough,
  type Declaration,
  type Effect,
  holderAt,
  type Id,
  type KeyPlace,
  listed,
  parseSettingAddress,
  type Setting,
  settingSchema,
  type Shaper,
  READS_WORDS,
  type Stop,
  switchWords,
  TAKEN,
  type Vector,
  wordsOf,
} from '../document/index.ts';

/** A line of a page in words, as it was pasted, and what is not as it should be. */
export interface LineLeft {
  readonly line: string;
  readonly why: string;
}
/** What came of pasting a page in words. */
export interface WordsRead {
  /** Lines that were set, or said already what is set. */
  readonly set: readonly string[];
  readonly left: readonly LineLeft[];
}

/** Thrown where words say nothing that a setting can be. */
class NotReadable extends Error {}

const NUMBER = /[-−]?\d+(?:\.\d+)?(?:e[-+]?\d+)?/i;

/** A number with its unit, or what stands for it where it is zero. */
function readNumber(text: string, declared: Declaration): number {
  const { unit, zero } = declared as { unit?: string; zero?: string };
  if (zero !== undefined && text.trim() === zero) return 0;
  const found = new RegExp(`^\\s*(${NUMBER.source})\\s*(.*?)\\s*$`, 'i').exec(text);
  if (!found) throw new NotReadable(`“${text.trim()}” is no number`);
  const [, number = '', written = ''] = found;
  const shown = unit === 'count' ? '' : (unit ?? '');
  if (written !== '' && written !== shown) throw new NotReadable(`${declared.name} is not measured in ${written}`);
  return Number(number.replace('−', '-'));
}

function readVector(text: string, declared: Declaration): Vector {
  const values = text.split(',').map((part) => readNumber(part, declared));
  if (values.length !== 3) throw new NotReadable(`${declared.name} takes three numbers`);
  return values as Vector;
}

function readColour(text: string, { palette }: Pick<Effect, 'palette'>): Colour {
  const found = listed(palette).find(({ item }) => item.name === text.trim());
  if (found) return { palette: found.id };
  if (/^#[0-9a-f]{6}$/i.test(text.trim())) return { hex: text.trim().toLowerCase() };
  throw new NotReadable(`“${text.trim()}” is no colour of this palette`);
}

const TO = /\s+to\s+/;

function readSwitch(text: string, declared: Declaration): boolean {
  const { yes, no } = switchWords(declared);
  if (text === yes || text === 'yes') return true;
  if (text === no || text === 'no') return false;
  throw new NotReadable(`${declared.name} is “${yes}” or “${no}”`);
}

/** Values to draw one of, some with weights, as in "1 m, 2 m × 3". */
function readSet(text: string, read: (part: string) => unknown): unknown {
  const values = text.split(/,\s*/).map((part) => {
    const [value = '', weight] = part.split(' × ');
    return { value: read(value), weight: weight === undefined ? 1 : Number(weight) };
  });
  if (values.some(({ weight }) => !Number.isFinite(weight))) throw new NotReadable('a weight is no number');
  return { kind: 'set', values };
}

/** What a setting begins with, from its words. */
function readBase(text: string, declared: Declaration, effect: Effect): unknown {
  const taken = Object.entries(TAKEN).find(([, words]) => text === `taken from ${words}`);
  if (taken) return { kind: 'taken', from: taken[0] };
  const measure = /^the measure (.*)$/.exec(text);
  if (measure) {
    const found = listed(effect.measures).find(({ item }) => item.name === measure[1]);
    if (!found) throw new NotReadable(`there is no measure ${measure[1]} here`);
    return { kind: 'measure', measure: found.id };
  }
  switch (declared.value) {
    case 'number':
    case 'vector': {
      const read = (part: string) => (declared.value === 'number' ? readNumber : readVector)(part, declared);
      const several = /^one of (.*)$/.exec(text);
      if (several && declared.value === 'number') return readSet(several[1]!, (part) => readNumber(part, declared));
      const [low = '', high] = text.split(TO);
      return high === undefined
        ? { kind: 'fixed', value: read(low) }
        : { kind: 'spread', low: read(low), high: read(high) };
    }
    case 'colour': {
      const several = /^one of (.*)$/.exec(text);
      if (several) return readSet(several[1]!, (part) => readColour(part, effect));
      const found = listed(effect.palette).some(({ item }) => item.name === text.trim());
      const [low = '', high] = found ? [text] : text.split(TO);
      return high === undefined
        ? { kind: 'fixed', value: readColour(low, effect) }
        : { kind: 'spread', low: readColour(low, effect), high: readColour(high, effect) };
    }
    case 'switch':
      return { kind: 'fixed', value: readSwitch(text, declared) };
    case 'choice': {
      const value = declared.choices.find((choice) => choice === text || choiceWord(declared, choice) === text);
      if (value === undefined) throw new NotReadable(`${declared.name} has no choice “${text}”`);
      return { kind: 'fixed', value };
    }
  }
}

function readPlace(text: string): KeyPlace {
  const found = new RegExp(`^(${NUMBER.source})(%| s after birth| s before death)$`).exec(text.trim());
  if (!found) throw new NotReadable(`“${text.trim()}” is no place of a key`);
  const value = Number(found[1]!.replace('−', '-'));
  if (found[2] === '%') return { anchor: 'share', value: value / 100 };
  return { anchor: found[2] === ' s after birth' ? 'afterBirth' : 'beforeDeath', value };
}

/** `0%: 0, 40%: 1 held` as pairs. */
const pairsOf = (text: string) =>
  text.split(/,\s*/).map((pair) => {
    const at = pair.indexOf(':');
    return { at: readPlace(pair.slice(0, at)), value: pair.slice(at + 1).trim() };
  });

/** A smooth curve through the keys that are told: how steep it is at each is not in the words. */
function readCurve(text: string): Curve {
  const keys = pairsOf(text).map(({ at, value }) => ({
    at,
    value: Number(value.replace(/ held$/, '').replace('−', '-')),
    isHeld: value.endsWith(' held'),
  }));
  if (keys.some(({ value }) => !Number.isFinite(value))) throw new NotReadable('a key of it is no number');
  // Those by seconds stand somewhere among the others: where, hangs on the life.
  const { keys: made } = curveThrough(keys.map(({ value }, n) => [n / Math.max(1, keys.length - 1), value]));
  const isEven = keys.every(({ at }) => at.anchor === 'share');
  const through = isEven ? curveThrough(keys.map(({ at, value }) => [at.value, value])).keys : made;
  const byId = Object.fromEntries(
    through.order.map((id, n) => {
      const flat = isEven ? {} : { slopeIn: 0, slopeOut: 0 };
      const held = keys[n]!.isHeld ? { held: true as const } : {};
      return [id, { ...through.byId[id]!, ...flat, ...held, at: keys[n]!.at }];
    }),
  );
  return { keys: { order: through.order, byId } };
}

const READS: Readonly<Record<string, Shaper['reads']>> = Object.fromEntries(
  Object.entries(READS_WORDS)
    .filter(([kind]) => kind !== 'channel' && kind !== 'dial')
    .map(([kind, words]) => [words, { kind } as Shaper['reads']]),
);
const COMBINES: Readonly<Record<string, Shaper['combine']>> = {
  multiplied: 'multiply',
  added: 'add',
  replaced: 'replace',
  blended: 'blend',
};

function readReads(text: string, effect: Effect): Shaper['reads'] {
  const known = READS[text];
  if (known) return known;
  const named = /^the (channel|dial) (.*)$/.exec(text);
  const [, kind, name] = named ?? [];
  if (kind === 'channel') {
    const found = listed(effect.channels).find(({ item }) => item.name === name);
    if (found) return { kind, channel: found.id };
  }
  if (kind === 'dial') {
    const found = listed(effect.dials).find(({ item }) => item.name === name);
    if (found) return { kind, dial: found.id };
  }
  throw new NotReadable(`${text} is not there to shape it`);
}

function readShaper(text: string, declared: Declaration, effect: Effect, newId: () => Id): Shaper {
  const muted = text.startsWith('muted: ');
  const found =
    /^by (.+?)(?: on ([xyz]))?, (multiplied|added|replaced|blended)(?: by ([\d.]+))?(?: with (.+?) \[(.*?)\])? \((.*)\)$/.exec(
      muted ? text.slice('muted: '.length) : text,
    );
  if (!found) throw new NotReadable(`“${text}” is no shape`);
  const [, by = '', axis, how = '', amount, changing, over = '', shape = ''] = found;
  const rest = {
    reads: readReads(by, effect),
    combine: COMBINES[how]!,
    amount: amount ? Number(amount) : 1,
    ...(changing ? { amountBy: { reads: readReads(changing, effect), curve: readCurve(over) } } : {}),
    ...(axis ? { axis: axis as 'x' | 'y' | 'z' } : {}),
    muted,
  };
  const band = /^between \((.*)\) and \((.*)\)$/.exec(shape);
  if (band) return { ...rest, mapping: { kind: 'band', low: readCurve(band[1]!), high: readCurve(band[2]!) } };
  if (declared.value !== 'colour') return { ...rest, mapping: { kind: 'curve', curve: readCurve(shape) } };
  const stops = pairsOf(shape).map(({ at, value }): [Id, Stop] => {
    const [colour = '', opacity] = / at [\d.]+%$/.test(value) ? value.split(/ at (?=[\d.]+%$)/) : [value];
    const opaque = opacity === undefined ? {} : { opacity: Number.parseFloat(opacity) / 100 };
    return [newId(), { at, colour: readColour(colour, effect), ...opaque }];
  });
  return {
    ...rest,
    mapping: { kind: 'gradient', stops: { order: stops.map(([id]) => id), byId: Object.fromEntries(stops) } },
  };
}

/** Reads what `settingWords` wrote of a setting. @throws NotReadable with the reason. */
function readSetting(text: string, declared: Declaration, effect: Effect, newId: () => Id): Setting {
  const muted = text.startsWith('muted: ');
  const [base = '', ...shapers] = (muted ? text.slice('muted: '.length) : text).split(/;\s+(?=(?:muted: )?by )/);
  const made = shapers.map((shaper): [Id, Shaper] => [newId(), readShaper(shaper, declared, effect, newId)]);
  const setting = {
    base: readBase(base.trim(), declared, effect),
    shapers: { order: made.map(([id]) => id), byId: Object.fromEntries(made) },
    muted,
  };
  const checked = settingSchema(declared).safeParse(setting);
  if (!checked.success)
    throw new NotReadable(
      `${declared.name} cannot be that: ${checked.error.issues[0]?.message ?? 'out of its limits'}`,
    );
  return checked.data;
}

/**
 * Sets what lines of a page in words say, in a draft: under the heading of a layer that layer, under none or one that is not
 * here the layer `chosen`. Lines that say something else than a setting, or what cannot be, are left.
 */
export function pasteWords(draft: Effect, page: string, chosen: Id, newId: () => Id): WordsRead {
  const known = wordsOf(draft, 'all');
  const own = draft.layers.byId[chosen]?.name ?? '';
  const headings = new Set(known.map(({ heading }) => heading));
  const lines = page.split(/\r?\n/).map((line) => line.trim());
  let heading = own;
  const set: string[] = [];
  const left: LineLeft[] = [];
  lines.forEach((line, n) => {
    const rule = /^(-+|=+)$/;
    if (line === '' || rule.test(line)) return;
    if (rule.test(lines[n + 1] ?? '')) {
      heading = headings.has(line) ? line : own;
      return;
    }
    const at = line.indexOf(': ');
    const [name, value] = [line.slice(0, at), line.slice(at + 2)];
    // Two parts of a layer may be called alike: the lines stand for them in their order.
    const same = known.filter((other) => other.heading === heading && other.name === name);
    const before = set.filter((done) => done === `${heading}/${name}`).length;
    const found = same[Math.min(before, same.length - 1)];
    try {
      if (at < 0 || !found) throw new NotReadable('nothing here is called so');
      set.push(`${heading}/${name}`);
      if (found.value === value) return;
      const address = parseSettingAddress(found.id);
      const holder = address && holderAt(draft, address);
      const declared = holder?.table[address!.setting];
      if (!holder || !declared) throw new NotReadable('it is no single setting: set it on its page');
      Object.assign(holder.settings[address!.setting]!, readSetting(value, declared, draft, newId));
    } catch (error) {
      if (!(error instanceof NotReadable)) throw error;
      if (set.at(-1) === `${heading}/${name}`) set.pop();
      left.push({ line, why: error.message });
    }
  });
  return { set: set.map((done) => done.replace('/', ': ')), left };
}
