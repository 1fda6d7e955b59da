import {
  curveShaper,
  ownerOf,
  type Effect,
  type Layer,
  type NumberSetting,
  type Shaper,
  settingsByName,
} from '../document/index.ts';
import { brightnessOf, curveAt, readyCurve } from '../maths/index.ts';
import { colourReader, dialShares, lookPlan, newReading, numberReader } from '../simulation/index.ts';

/** How a middling particle of a layer looks at one age. */
export interface LifeSample {
  readonly age: number;
  readonly size: number;
  /** 0 to 1. */
  readonly opacity: number;
  readonly intensity: number;
  /** Linear colour without intensity. */
  readonly rgb: readonly [number, number, number];
  /** Light it gives: size² × opacity × intensity × brightness. */
  readonly energy: number;
}

/** What a life is read from, beside the layer itself. */
export type Shared = Pick<Effect, 'palette' | 'measures' | 'dials'>;

/** Parts of a curve at which its height is looked for. */
const PARTS = 32;

/** A shaper that reads neither age nor a dial hangs on how a particle fares: here it stands at its highest. */
function atItsHighest(shaper: Shaper): Shaper {
  const { reads, mapping } = shaper;
  if (reads.kind === 'age' || reads.kind === 'dial' || mapping.kind === 'gradient') return shaper;
  const curve = readyCurve(mapping.kind === 'curve' ? mapping.curve : mapping.high);
  const last = curve.x[curve.x.length - 1] ?? 0;
  let most = curveAt(curve, 0);
  for (let part = 1; part <= PARTS; part++) most = Math.max(most, curveAt(curve, (last * part) / PARTS));
  const level = curveShaper([
    [0, most],
    [1, most],
  ]);
  return { ...shaper, reads: { kind: 'age' }, mapping: level.mapping };
}

function shapedAtTheirHighest(setting: NumberSetting): NumberSetting {
  const { order, byId } = setting.shapers;
  const highest = Object.entries(byId).map(([id, shaper]) => [id, atItsHighest(shaper)]);
  return { ...setting, shapers: { order, byId: Object.fromEntries(highest) as typeof byId } };
}

/** The layer with every spread at its middle: one particle that stands for all. */
function middling(layer: Layer): Layer {
  const settings = Object.fromEntries(
    Object.entries(settingsByName<NumberSetting>(layer)).map(([name, setting]) => {
      const { base } = setting;
      const shaped = setting.shapers.order.length > 0 ? shapedAtTheirHighest(setting) : setting;
      if (base.kind !== 'spread' || typeof base.low !== 'number') return [name, shaped];
      return [name, { ...shaped, base: { kind: 'fixed', value: (base.low + base.high) / 2 } }];
    }),
  );
  return { ...layer, settings: settings as unknown as Layer['settings'] };
}

/** Shortest, middle and longest lifetime of a layer with particles of its own, in seconds. */
export function lifetimesOf(owner: Layer, measures: Effect['measures']): [number, number, number] {
  const { base } = owner.settings['births.life'];
  if (base.kind === 'spread') return [base.low, (base.low + base.high) / 2, base.high];
  const value =
    base.kind === 'fixed' ? base.value : base.kind === 'measure' ? (measures.byId[base.measure]?.value ?? 1) : 1;
  return [value, value, value];
}

/** Shortest, middle and longest lifetime of the particles a layer shows, in seconds. */
export const lifetimes = (effect: Effect, layerId: string): [number, number, number] =>
  lifetimesOf(effect.layers.byId[ownerOf(effect, layerId)]!, effect.measures);

/** `count` + 1 even ages from birth to death. */
export const evenAges = (count: number): number[] => Array.from({ length: count + 1 }, (_, i) => i / count);

/** Samples of a life at `count` + 1 even ages from birth to death. */
export const lifeSamples = (effect: Effect, layerId: string, count: number): LifeSample[] =>
  samplesAt(effect, layerId, evenAges(count));

/** Samples of a life at some ages, 0 to 1. */
export const samplesAt = (effect: Effect, layerId: string, ages: readonly number[]): LifeSample[] =>
  samplesOf(effect.layers.byId[layerId]!, effect.layers.byId[ownerOf(effect, layerId)]!, effect, ages);

/** Samples of the life of `owner`'s particles as `layer` dresses them. */
export function samplesOf(layer: Layer, owner: Layer, shared: Shared, ages: readonly number[]): LifeSample[] {
  const middle = middling(layer);
  const reader = (name: 'life.size' | 'life.opacity' | 'life.intensity') => numberReader(middle, name, shared);
  const [sizes, opacities, intensities] = [reader('life.size'), reader('life.opacity'), reader('life.intensity')];
  const colour = colourReader(middle, shared, 1);
  const reading = {
    ...newReading(),
    life: Math.max(0.02, lifetimesOf(owner, shared.measures)[1]),
    dials: dialShares(shared),
  };
  const rgb = new Float64Array(3);
  return ages.map((age): LifeSample => {
    reading.age = age;
    const size = sizes.read(reading);
    const opacity = opacities.read(reading) / 100;
    const intensity = intensities.read(reading);
    colour.readInto(reading, rgb);
    const brightness = brightnessOf(rgb);
    return {
      age: reading.age,
      size,
      opacity,
      intensity,
      rgb: [rgb[0]!, rgb[1]!, rgb[2]!],
      energy: size * size * opacity * intensity * brightness,
    };
  });
}

/** What of a layer's look differs between particles, as a middling one has it at some ages: numbers as a frame lays them out. */
export function ownNumbersAt(effect: Effect, layerId: string, ages: readonly number[]): number[][] {
  const layer = middling(effect.layers.byId[layerId]!);
  const plan = lookPlan(effect, layer);
  const life = Math.max(0.02, lifetimes(effect, layerId)[1]);
  const reading = { ...newReading(), life, dials: dialShares(effect) };
  return ages.map((age) => {
    reading.age = age;
    const own = new Array<number>(plan.ownWords).fill(0);
    for (const { kind, at, reader } of plan.numbers) if (kind === 'own') own[at] = reader.middle(reading);
    if (plan.secondsAt !== null) own[plan.secondsAt] = age * life;
    return own;
  });
}
