import { ownerOf, structuredCopy, type Effect, type Layer, type NumberSetting } from '../document/index.ts';
import { colourReader, dialShares, newReading, numberReaders } from '../simulation/index.ts';

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

/** The layer with every spread at its middle: one particle that stands for all. */
function middling(layer: Layer): Layer {
  const copy = structuredCopy(layer);
  for (const setting of Object.values(copy.settings) as NumberSetting[])
    if (setting.base.kind === 'spread' && typeof setting.base.low === 'number')
      setting.base = { kind: 'fixed', value: (setting.base.low + setting.base.high) / 2 };
  return copy;
}

/** Shortest, middle and longest lifetime of the particles a layer shows, in seconds. */
export function lifetimes(effect: Effect, layerId: string): [number, number, number] {
  const { base } = effect.layers.byId[ownerOf(effect, layerId)]!.settings['births.life'];
  if (base.kind === 'spread') return [base.low, (base.low + base.high) / 2, base.high];
  const value =
    base.kind === 'fixed'
      ? base.value
      : base.kind === 'measure'
        ? (effect.measures.byId[base.measure]?.value ?? 1)
        : 1;
  return [value, value, value];
}

/** Samples of a life at `count` + 1 even ages from birth to death. */
export const lifeSamples = (effect: Effect, layerId: string, count: number): LifeSample[] =>
  samplesAt(
    effect,
    layerId,
    Array.from({ length: count + 1 }, (_, i) => i / count),
  );

/** Samples of a life at some ages, 0 to 1. */
export function samplesAt(effect: Effect, layerId: string, ages: readonly number[]): LifeSample[] {
  const layer = middling(effect.layers.byId[layerId]!);
  const numbers = numberReaders(layer, effect, 1);
  const colour = colourReader(layer, effect);
  const reading = { ...newReading(), life: Math.max(0.02, lifetimes(effect, layerId)[1]), dials: dialShares(effect) };
  const rgb = new Float64Array(3);
  return ages.map((age): LifeSample => {
    reading.age = age;
    const size = numbers['life.size'].read(reading);
    const opacity = numbers['life.opacity'].read(reading) / 100;
    const intensity = numbers['life.intensity'].read(reading);
    colour.readInto(reading, rgb);
    const brightness = 0.2126 * rgb[0]! + 0.7152 * rgb[1]! + 0.0722 * rgb[2]!;
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
