import {
  factorOf,
  groupFactor,
  LAW,
  listed,
  mapped,
  placesIn,
  READS_LAW,
  settingsIn,
  settingsOfLayer,
  withoutDust,
  type Curve,
  type Effect,
  type FoundSetting,
  type KeyPlace,
  type Layer,
  type Moment,
  type NumberDeclaration,
  type NumberSetting,
  type Place,
  type Powers,
  type Scaling,
  type Setting,
  type Shaper,
  type Vector,
} from '../document/index.ts';

/** What may be held as it is while an effect is made larger or faster. */
export const QUANTITIES = ['sizes', 'distances', 'speeds', 'pushes', 'times', 'births', 'turning'] as const;
export type Quantity = (typeof QUANTITIES)[number];

/** How an effect was made larger or faster, and what could not go along. */
export interface Resized {
  /** Settings that stand at their limit instead of where the law would have them, by name. */
  readonly limited: string[];
}

const SIZES = new Set(['life.size', 'appearance.wrapDepth', 'appearance.nudge']);

/** Which quantity a number is, of those that may be held. */
function quantityOf({ address, declaration }: Pick<FoundSetting, 'address' | 'declaration'>): Quantity | null {
  const name = address.setting;
  if (declaration.value !== 'number' && declaration.value !== 'vector') return null;
  if (name.startsWith('births.') && declaration.unit.startsWith('/')) return 'births';
  switch (declaration.unit) {
    case 'm':
      return SIZES.has(name) ? 'sizes' : 'distances';
    case 'm/s':
      return 'speeds';
    case 'm/s²':
      return 'pushes';
    case 's':
      return 'times';
    case '°/s':
      return 'turning';
    default:
      return null;
  }
}

const NEITHER: Powers = { size: 0, tempo: 0 };

/** Light falls off by the square of the distance on what it lights, and by the distance in the fog it shines through. */
const OF_LIGHTS: Record<string, Powers> = { surfaces: { size: 2, tempo: 0 }, fog: { size: 1, tempo: 0 } };

/** By which powers a setting goes: mostly those of its unit. */
function powersOf(found: FoundSetting, effect: Effect): Powers {
  const { declaration, address, layer } = found;
  const name = address.setting;
  if (declaration.value !== 'number' && declaration.value !== 'vector') return NEITHER;
  if (address.kind === 'drawn' && layer !== null && effect.layers.byId[layer]!.drawn.kind === 'light')
    return OF_LIGHTS[name] ?? LAW[declaration.unit];
  if (name === 'life.turning' && layer !== null) {
    const { base, muted } = effect.layers.byId[layer]!.settings['life.turns'];
    if (!muted && base.value === 'turns a life') return NEITHER;
  }
  if (address.kind === 'surface' && declaration.unit === '×') return LAW.m;
  return LAW[declaration.unit];
}

/** A number so many times as large; once is the very number. */
const multiplied = (x: number, factor: number): number => (factor === 1 ? x : withoutDust(x * factor));
const times = (vector: Vector, factor: number): Vector => vector.map((x) => multiplied(x, factor)) as Vector;

/** Writes what a scaling makes of one setting, shapers and all. */
class Scaler {
  readonly #scaling: Scaling;
  readonly #held: ReadonlySet<Quantity>;
  readonly limited = new Set<string>();

  constructor(scaling: Scaling, held: ReadonlySet<Quantity>) {
    this.#scaling = scaling;
    this.#held = held;
  }

  factor(powers: Powers, quantity: Quantity | null): number {
    return quantity && this.#held.has(quantity) ? 1 : factorOf(this.#scaling, powers);
  }
  get metres(): number {
    return this.factor(LAW.m, 'distances');
  }
  get seconds(): number {
    return this.factor(LAW.s, 'times');
  }

  setting(found: FoundSetting, factor: number): void {
    const { declaration, setting } = found;
    if (declaration.value === 'number' || declaration.value === 'vector') this.#base(found, factor);
    setting.shapers = mapped<Shaper>(setting.shapers, (shaper) => this.#shaper(shaper, factor));
  }

  #base({ setting, declaration }: FoundSetting, factor: number): void {
    if (factor === 1) return;
    const { least, most, name } = declaration as NumberDeclaration;
    const fitted = (value: number) => {
      const wanted = multiplied(value, factor);
      const fit = Math.min(most, Math.max(least, wanted));
      if (fit !== wanted) this.limited.add(name);
      return fit;
    };
    const of = <T extends number | Vector>(value: T) =>
      (typeof value === 'number' ? fitted(value) : value.map(fitted)) as T;
    const base = setting.base as NumberSetting['base'];
    if (base.kind === 'fixed') setting.base = { ...base, value: of(base.value) } as Setting['base'];
    else if (base.kind === 'spread') setting.base = { ...base, low: of(base.low), high: of(base.high) };
  }

  /** Times on the age ruler go with time; what replaces or adds has the unit of what it shapes. */
  #shaper(shaper: Shaper, factor: number): Shaper {
    const value = shaper.combine === 'multiply' ? 1 : factor;
    const reads = shaper.reads.kind;
    const width = this.factor(READS_LAW[reads], reads === 'speed' ? 'speeds' : 'distances');
    const place = (at: KeyPlace): KeyPlace => ({
      ...at,
      value: Math.min(3600, multiplied(at.value, at.anchor === 'share' ? width : this.seconds)),
    });
    const { mapping } = shaper;
    const curve = (of: Curve): Curve => ({
      keys: mapped(of.keys, (key) => ({
        ...key,
        at: place(key.at),
        value: multiplied(key.value, value),
        slopeIn: multiplied(key.slopeIn, value / width),
        slopeOut: multiplied(key.slopeOut, value / width),
      })),
    });
    switch (mapping.kind) {
      case 'gradient':
        return {
          ...shaper,
          mapping: { ...mapping, stops: mapped(mapping.stops, (stop) => ({ ...stop, at: place(stop.at) })) },
        };
      case 'curve':
        return { ...shaper, mapping: { ...mapping, curve: curve(mapping.curve) } };
      case 'band':
        return { ...shaper, mapping: { ...mapping, low: curve(mapping.low), high: curve(mapping.high) } };
    }
  }

  place(place: Place): void {
    place.offset = times(place.offset, this.metres);
    place.keys = mapped(place.keys, (key) => ({
      ...key,
      at: Math.min(3600, multiplied(key.at, this.seconds)),
      offset: times(key.offset, this.metres),
    }));
  }

  moment(moment: Moment | null): void {
    if (moment) moment.seconds = multiplied(moment.seconds, this.seconds);
  }

  /** What of a layer is no setting: drawn paths, and times of bursts and hits. */
  layer(layer: Layer): void {
    if (layer.source.kind === 'path')
      layer.source.points = layer.source.points.map((point) => times(point, this.metres));
    if (layer.source.kind === 'hits')
      for (const { item } of listed(layer.source.hits)) item.at = multiplied(item.at, this.seconds);
    for (const { item } of listed(layer.bursts)) {
      item.at = multiplied(item.at, this.seconds);
      item.every = Math.min(600, Math.max(0.01, multiplied(item.every, this.seconds)));
    }
    this.moment(layer.births.from);
    this.moment(layer.births.until);
  }
}

/** Makes the settings of one layer `size` times as large, as a group of that scale would, in a draft; its places stay. */
export function resizeLayerSettings(draft: Effect, id: string, size: number): void {
  const scaler = new Scaler({ size, tempo: 1 }, new Set());
  for (const found of settingsOfLayer(draft, id)) {
    const { declaration } = found;
    const unit = declaration.value === 'number' || declaration.value === 'vector' ? declaration.unit : '';
    scaler.setting(found, groupFactor(size, unit));
  }
  const { source } = draft.layers.byId[id]!;
  if (source.kind === 'path') source.points = source.points.map((point) => times(point, size));
}

/**
 * Makes an effect `size` times as large and `tempo` times as fast, in a draft, and keeps its picture: the new one at t / tempo
 * is the old one at t, `size` times as large about the effect's own place. What is held stays as it is. The stage, and
 * how often births are counted at most, are not part of it.
 */
export function resize(draft: Effect, scaling: Scaling, held: ReadonlySet<Quantity> = new Set()): Resized {
  const scaler = new Scaler(scaling, held);
  for (const found of settingsIn(draft))
    scaler.setting(found, scaler.factor(powersOf(found, draft), quantityOf(found)));
  for (const place of placesIn(draft)) scaler.place(place);
  for (const { item } of listed(draft.layers)) scaler.layer(item);
  for (const { item } of listed(draft.groups)) {
    item.translation = times(item.translation, scaler.metres);
    // What stands in it is another effect's to change, but for how large it is here.
    if (item.linked) item.scale = multiplied(item.scale, scaler.metres);
  }
  for (const { item } of listed(draft.measures)) {
    const factor = item.quantity === 'length' ? scaler.metres : item.quantity === 'time' ? scaler.seconds : 1;
    item.value = multiplied(item.value, factor);
  }
  for (const { item } of listed(draft.dials)) if (item.kind === 'place') item.at = times(item.at, scaler.metres);
  for (const { item } of listed(draft.signals))
    if (item.tried) item.tried.at = multiplied(item.tried.at, scaler.seconds);
  const { bounds } = draft.quality;
  if (bounds) for (const corner of ['low', 'high'] as const) bounds[corner] = times(bounds[corner], scaler.metres);
  const { stretches } = draft;
  const length = (seconds: number, most: number, least = 0) =>
    Math.min(most, Math.max(least, multiplied(seconds, scaler.seconds)));
  stretches.opening = length(stretches.opening, 600);
  stretches.closing = length(stretches.closing, 600);
  stretches.preRoll = length(stretches.preRoll, 60);
  if (stretches.hold.kind !== 'none') stretches.hold.seconds = length(stretches.hold.seconds, 600, 0.1);
  return { limited: [...scaler.limited] };
}

const percent = (factor: number): string => `${Number((100 * factor).toPrecision(2))}%`;

/** What holding a quantity makes of the picture, in a sentence; null where it changes nothing. */
export function consequenceOf(held: Quantity, { size, tempo }: Scaling): string | null {
  const changes = (factor: number, sentence: string) => (factor === 1 ? null : sentence);
  switch (held) {
    case 'sizes':
      return changes(
        size,
        `Particles stay as big: they cover ${percent(1 / (size * size))} of what they did, for the new size.`,
      );
    case 'distances':
      return changes(size, 'Places and shapes stay: particles, speeds and pushes alone become larger or smaller.');
    case 'speeds':
      return changes(
        size * tempo,
        `Speeds stay: particles come ${percent(1 / (size * tempo))} as far in their life, for the new size.`,
      );
    case 'pushes':
      return changes(
        size * tempo * tempo,
        `Forces push as before: ${percent(1 / (size * tempo * tempo))} as hard, for the new size and tempo.`,
      );
    case 'times':
      return changes(
        tempo,
        'Stretches, lifetimes and bursts stay as long: speeds, rates and turning alone become faster or slower.',
      );
    case 'births':
      return changes(
        size * tempo,
        tempo === 1
          ? 'Births by the metre stay as close.'
          : `Births a second stay: ${percent(1 / tempo)} as many are alive at once.`,
      );
    case 'turning':
      return changes(tempo, `Turning stays: each turns ${percent(1 / tempo)} as far in its life.`);
  }
}
