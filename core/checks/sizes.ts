import { type Effect, type Id, type Layer } from '../document/index.ts';
import type { Rig } from '../geometry/index.ts';
import { lifeSamples } from './lifeSamples.ts';
import type { Problem } from './mend.ts';
import { layerMend, said, scaleBase } from './numbers.ts';
import type { StageRigs } from './sources.ts';

/** A figure where none is on the stage, metres high. */
const USUAL_FIGURE = 1.8;
/** How many times as large as the figure, or as a point of the picture at game distance, is taken for a slip. */
const TOO_MANY_TIMES = 10;
/** At game distance a figure of 1.8 m is a sixth of a picture of 1080 rows. */
const POINT = 1.8 / (1080 / 6);
/** Metres from the middle of the stage at which something is out of sight. */
const FAR = 60;

const heights = new WeakMap<Rig, number>();
/** How high a rig stands at rest, metres. */
function heightOf(rig: Rig): number {
  const known = heights.get(rig);
  if (known !== undefined) return known;
  let [low, high] = [0, 0];
  const { positions } = rig.mesh;
  for (let i = 1; i < positions.length; i += 3) {
    low = Math.min(low, positions[i]!);
    high = Math.max(high, positions[i]!);
  }
  heights.set(rig, high - low);
  return high - low;
}

/** How high the tallest figure on the stage stands, and what it is called. */
function figureOf(effect: Effect, rigs: StageRigs): { name: string; height: number } {
  let best = { name: 'a figure', height: 0 };
  for (const [id, rig] of rigs) {
    const thing = effect.stage.things.byId[id];
    const height = heightOf(rig) * (thing?.scale ?? 1);
    if (height > best.height) best = { name: thing?.name ?? rig.name, height };
  }
  return best.height > 0.1 ? best : { ...best, height: USUAL_FIGURE };
}

function wrongScale(effect: Effect, layerId: Id, rigs: StageRigs): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  if (layer.drawn.kind === 'body' || layer.drawn.kind === 'light' || layer.drawn.kind === 'blade') return [];
  const largest = Math.max(...lifeSamples(effect, layerId, 32).map(({ size }) => size));
  if (!(largest > 0)) return [];
  const figure = figureOf(effect, rigs);
  const rescale = (label: string, times: number) =>
    layerMend(layerId, label, (own) => scaleBase(own.settings['life.size'], times));
  if (largest > figure.height * TOO_MANY_TIMES)
    return [
      {
        id: 'large',
        sentence: `${layer.name} is ${said(largest)} m large, ${said(largest / figure.height)} times as high as ${figure.name}.`,
        severity: 'doubtful',
        where: 'life',
        measure: largest / figure.height,
        mend: rescale('Make it a hundredth of that', 0.01),
      },
    ];
  if (largest < POINT / TOO_MANY_TIMES)
    return [
      {
        id: 'small',
        sentence: `${layer.name} is ${said(largest * 1000)} mm large: at game distance a point of the picture is ${said(POINT * 1000)} mm.`,
        severity: 'doubtful',
        where: 'life',
        measure: largest / POINT,
        mend: rescale('Make it a hundred times as large', 100),
      },
    ];
  return [];
}

/** Layers that stand where nobody looks. */
function farAway(effect: Effect, layerId: Id): Problem[] {
  const { name, source, population }: Layer = effect.layers.byId[layerId]!;
  if (population.kind === 'follows' || !('place' in source) || 'thing' in source.place) return [];
  const [x, y, z] = source.place.offset;
  const away = Math.sqrt(x * x + y * y + z * z);
  if (away <= FAR || source.place.keys.order.length > 0) return [];
  return [
    {
      id: 'far',
      sentence: `${name} is ${said(away)} m away from the middle of the stage.`,
      severity: 'doubtful',
      where: 'source',
      measure: away,
      mend: layerMend(layerId, 'Bring it to the middle', (own) => {
        if ('place' in own.source) own.source.place.offset = [0, 1, 0];
      }),
    },
  ];
}

export const sizeProblems = (effect: Effect, layerId: Id, rigs: StageRigs): Problem[] => [
  ...wrongScale(effect, layerId, rigs),
  ...farAway(effect, layerId),
];
