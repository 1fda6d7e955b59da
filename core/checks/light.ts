import {
  activeBursts,
  type Effect,
  type Surround,
  type Id,
  type Layer,
  ownerOf,
  SURROUND_COLOURS,
  timedBursts,
} from '../document/index.ts';
import { brightnessOf, exp, linearOf } from '../maths/index.ts';
import { colourReader, dialShares, newReading, numberReader } from '../simulation/index.ts';
import { lifeSamples, lifetimes, type LifeSample } from './lifeSamples.ts';
import type { Problem } from './mend.ts';
import { layerMend, mostOf, said, scaleBase } from './numbers.ts';
import { sheetClock } from './presence.ts';

/** Times as bright as the screen can show beyond which nothing but white is left of a colour. */
const TOO_BRIGHT = 40;
/** What a particle must at least change of what is behind it to be seen. */
const SEEN = 0.03;
/** Layers of more particles than this are seen by how they add up, which is not judged here. */
const FEW = 40;
/** Square metres of the picture at game distance, where a figure of 1.8 m is a sixth of its height. */
const PICTURE_AREA = 10.8 * 19.2;
/** Share of the picture, and flashes a second, that may be dangerous (WCAG 2.3.1); and what counts as a change. */
const WIDE = 0.25;
const MOST_FLASHES = 3;
const FLASH = 0.1;

const LN2 = 0.6931471805599453;

/** Light behind an effect on a surround, between horizon and ground. */
export function surroundLight(surround: Surround): number {
  const { horizon, ground } = SURROUND_COLOURS[surround];
  return (brightnessOf(linearOf(horizon)) + brightnessOf(linearOf(ground))) / 2;
}

const isSeenItself = ({ drawn }: Layer) => drawn.kind !== 'haze' && drawn.kind !== 'light';

/** How far one particle that adds or multiplies changes what is behind it, as a share of that. */
function contrast(isAdded: boolean, { rgb, intensity, opacity }: LifeSample, behind: number): number {
  const own = brightnessOf(rgb) * intensity;
  const there = behind + 0.01;
  return isAdded ? (own * opacity) / there : ((1 - Math.min(1, own)) * opacity * behind) / there;
}

/** Too bright to keep its colour, or too faint to be seen where it is shown. */
function outOfRange(effect: Effect, layerId: Id): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  if (!isSeenItself(layer)) return [];
  const life = lifeSamples(effect, layerId, 32);
  const exposure = exp(effect.stage.lens.exposure * LN2);
  const brightest =
    Math.max(...life.map(({ rgb, intensity, opacity }) => Math.max(...rgb) * intensity * opacity)) * exposure;
  if (brightest > TOO_BRIGHT)
    return [
      {
        id: 'bright',
        sentence: `${layer.name} is ${said(brightest)} times as bright as the screen: nothing but white is left of its colour.`,
        severity: 'doubtful',
        where: 'life',
        measure: brightest,
        mend: layerMend(layerId, 'Make it 6 times as bright', (own) =>
          scaleBase(own.settings['life.intensity'], 6 / brightest),
        ),
      },
    ];
  const owner = effect.layers.byId[ownerOf(effect, layerId)]!;
  const living = mostOf(owner.settings['births.rate'], effect) * lifetimes(effect, layerId)[1];
  const { surround } = effect.stage;
  const blend = layer.settings['appearance.blend'].base.value;
  const darkens = blend === 'multiply';
  // What covers is seen against other layers too.
  if (!darkens && blend !== 'additive') return [];
  const most = Math.max(...life.map((sample) => contrast(!darkens, sample, surroundLight(surround))));
  if (living > FEW || most >= SEEN || most === 0) return [];
  return [
    {
      id: 'faint',
      sentence: `${layer.name} is too faint on ${surround}: at most it changes what is behind it by ${said(most * 100)}%.`,
      severity: 'doubtful',
      where: 'life',
      measure: most,
      mend: darkens
        ? null
        : layerMend(layerId, 'Make it brighter', (own) =>
            scaleBase(own.settings['life.intensity'], (SEEN * 4) / most),
          ),
    },
  ];
}

/** How bright a layer is along the sheet, a value for each step: of what stands by the effect's time, of bursts by their lives. */
function brightnessOverTime(effect: Effect, layerId: Id): Float64Array {
  const layer = effect.layers.byId[layerId]!;
  const owner = effect.layers.byId[ownerOf(effect, layerId)]!;
  const clock = sheetClock(effect);
  const series = new Float64Array(Math.max(1, Math.ceil(clock.length * clock.rate)));
  const [, life] = lifetimes(effect, layerId);
  const [opacity, intensity] = [
    numberReader(layer, 'life.opacity', effect),
    numberReader(layer, 'life.intensity', effect),
  ];
  const colour = colourReader(layer, effect, 1);
  const reading = { ...newReading(), life: Math.max(0.02, life), dials: dialShares(effect) };
  const rgb = new Float64Array(3);
  const at = (time: number, age: number): number => {
    reading.age = age;
    reading.effectTime = clock.share(time);
    reading.stretchTime = clock.stretchShare(time);
    colour.readInto(reading, rgb);
    return ((brightnessOf(rgb) * opacity.read(reading)) / 100) * intensity.read(reading);
  };
  const stands = mostOf(owner.settings['births.standing'], effect) > 0;
  const begun = timedBursts(owner, effect).flatMap(({ item }) =>
    Array.from(
      { length: item.most > 0 ? item.times : 0 },
      (_, n) => clock.startOf(item.stretch) + item.at + n * item.every,
    ),
  );
  for (let step = 0; step < series.length; step++) {
    const time = step / clock.rate;
    let sum = stands ? at(time, clock.standingAge(time)) : 0;
    for (const start of begun) if (time >= start && time < start + life) sum += at(time, (time - start) / life);
    series[step] = Math.min(1, sum);
  }
  return series;
}

/** The most flashes in any one second of a series of steps: rises of a tenth at least, each after a fall of as much. */
export function flashesASecond(series: Readonly<Float64Array>, rate: number): number {
  const rises: number[] = [];
  let low = series[0] ?? 0;
  let high = low;
  let isRising = false;
  series.forEach((value, step) => {
    if (isRising) {
      high = Math.max(high, value);
      if (value <= high - FLASH) [isRising, low] = [false, value];
    } else {
      low = Math.min(low, value);
      if (value >= low + FLASH) {
        [isRising, high] = [true, value];
        rises.push(step);
      }
    }
  });
  return rises.reduce((most, step, n) => {
    let count = 0;
    while (n + count < rises.length && rises[n + count]! < step + rate) count++;
    return Math.max(most, count);
  }, 0);
}

/** Whether a layer that covers much of the picture flashes fast: it may harm people. */
function flashes(effect: Effect, layerId: Id): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  const { drawn, name } = layer;
  const wide =
    drawn.kind === 'light'
      ? 2 * mostOf(drawn.settings.reach, effect)
      : Math.max(...lifeSamples(effect, layerId, 16).map(({ size }) => size));
  const share = (Math.PI * wide * wide) / 4 / PICTURE_AREA;
  if (share < WIDE || drawn.kind === 'haze') return [];
  const count = flashesASecond(brightnessOverTime(effect, layerId), sheetClock(effect).rate);
  if (count <= MOST_FLASHES) return [];
  const owner = ownerOf(effect, layerId);
  const fast = activeBursts(effect.layers.byId[owner]!).filter(({ item }) => item.times > 1 && item.every < 0.34);
  return [
    {
      id: 'flashes',
      sentence: `${name} flashes ${count} times a second over ${said(Math.min(1, share) * 100)}% of the picture: more than ${MOST_FLASHES} may harm people.`,
      where: 'births',
      measure: count,
      mend:
        fast.length > 0
          ? layerMend(owner, 'Let them come every 0.4 s', (own) =>
              fast.forEach(({ id }) => (own.bursts.byId[id]!.every = 0.4)),
            )
          : null,
    },
  ];
}

export const lightProblems = (effect: Effect, layerId: Id): Problem[] => [
  ...outOfRange(effect, layerId),
  ...flashes(effect, layerId),
];
