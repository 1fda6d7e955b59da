import {
  activeBursts,
  keptShare,
  type Layer,
  LAYER_SETTINGS,
  type NumberSetting,
  sizeForKept,
  type Vector,
} from '../../document/index.ts';
import { Channels } from '../values/channels.ts';
import { lookPlan } from '../looks/plan.ts';
import { EffectClock, SHORTEST_STANDING } from '../time/clock.ts';
import { boundForces } from './forces.ts';
import { boundBeam } from './trails.ts';
import { groupFrame } from '../scene/groups.ts';
import { bindLinks } from './links.ts';
import { windowOf } from '../time/moments.ts';
import { RateIntegral } from '../values/rate.ts';
import { newReading } from '../values/reading.ts';
import { Launch } from '../sources/launch.ts';
import { sourceReader } from '../sources/kinds.ts';
import { colourReader, turnsInLives, type Numbers, numberReaders } from '../values/layerReaders.ts';
import type { Compiling } from './surroundings.ts';
import type { CompiledLayer } from './plan.ts';
import { dialShares } from '../values/dials.ts';

function plainVector(layer: Layer, name: 'motion.axis' | 'motion.velocity'): Vector {
  const setting = layer.settings[name];
  const byDefault = LAYER_SETTINGS[name].byDefault;
  return setting.muted || setting.base.kind !== 'fixed'
    ? [byDefault[0], byDefault[1], byDefault[2]]
    : setting.base.value;
}

const scaled = ([x, y, z]: Vector, scale: number): Vector => [x * scale, y * scale, z * scale];

/** The lifetime all particles of a layer share; null where they differ. Standing ones live as long as the effect. */
function sharedLife(layer: Layer, numbers: Numbers, clock: EffectClock): number | null {
  const stand = numbers['births.standing'].low > 0;
  const hasArea = numbers['births.perArea'].low > 0;
  if (!stand && !hasArea) return numbers['births.life'].isConstant ? numbers['births.life'].low : null;
  const only = numbers['births.rate'].isConstant && numbers['births.rate'].low === 0;
  const hasOthers = numbers['births.perMetre'].low > 0 || activeBursts(layer).length > 0;
  return only && !hasOthers ? Math.max(clock.length, SHORTEST_STANDING) : null;
}

export function compileLayer(id: string, around: Compiling): CompiledLayer {
  const { effect, scene, clock } = around;
  const layer = effect.layers.byId[id]!;
  const populationOf = around.lineage.unborn.has(id) ? () => null : around.populationOf;
  const group = groupFrame(effect, layer.parent);
  const numbers = numberReaders(layer, effect, group.scale, sizeForKept(effect.quality, layer));
  const cap = layer.settings['births.cap'];
  const ground = layer.settings['source.ground'];
  const isOnGround = !ground.muted && ground.base.value;
  const fixed = (setting: NumberSetting, otherwise: number) =>
    setting.muted
      ? otherwise
      : setting.base.kind === 'fixed'
        ? setting.base.value
        : setting.base.kind === 'measure'
          ? effect.measures.byId[setting.base.measure]!.value
          : otherwise;
  const life = sharedLife(layer, numbers, clock);
  return {
    id,
    layer,
    group,
    numbers,
    look: lookPlan(effect, layer, group.scale),
    colour: colourReader(layer, effect, group.scale, around.passedOn.colour.has(id)),
    turnsInLives: turnsInLives(layer),
    channels: new Channels(layer, effect, group.scale, around.passedOn.channels.has(id)),
    keepsDistance: around.keepDistance.has(id),
    source: sourceReader({ layer, scene, group, numbers, populationOf, strikes: around.strikes }),
    rate: new RateIntegral(numbers['births.rate'], clock, dialShares(effect), layer.births.until === null),
    window: windowOf(layer, effect, clock),
    kept: keptShare(effect.quality, layer),
    beginsAt: clock.beginsAt,
    bursts: activeBursts(layer),
    signals: around.signals,
    forces: boundForces(id, group, effect),
    life,
    cap: Math.floor(fixed(cap, 10_000)),
    isOnGround,
    ride: isOnGround ? 0 : numbers['motion.ride'].read(newReading()) / 100,
    launch: new Launch(layer, plainVector(layer, 'motion.axis'), scene, group),
    velocityBeside: scaled(plainVector(layer, 'motion.velocity'), group.scale),
    isGivenColour: around.passedOn.colour.has(id),
    isGivenSize: around.passedOn.size.has(id),
    links: bindLinks(id, effect, around.lineage),
    front: (layer.front !== null && around.fronts.get(layer.front)) || null,
    holds: layer.front !== null,
    beam: boundBeam(layer.drawn, effect, group.scale),
    takesColour: layer.settings['life.colour'].base.kind === 'taken' && !layer.settings['life.colour'].muted,
  };
}
