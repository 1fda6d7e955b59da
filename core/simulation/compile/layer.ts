import {
  activeBursts,
  keptShare,
  type Layer,
  LAYER_SETTINGS,
  sizeForKept,
  type Effect,
} from '../../document/index.ts';
import { Channels } from '../values/channels.ts';
import { lookPlan } from '../looks/plan.ts';
import { EffectClock, SHORTEST_STANDING } from '../time/clock.ts';
import { drawnMeshOf } from './drawnMesh.ts';
import { boundForces } from './forces.ts';
import { boundBeam } from './trails.ts';
import { groupFrame } from '../scene/groups.ts';
import { bindLinks } from './links.ts';
import { windowOf } from '../time/moments.ts';
import { RateIntegral } from '../values/rate.ts';
import { Around } from '../sources/around.ts';
import type { Reading } from '../values/reading.ts';
import { VectorReader } from '../values/vectorReader.ts';
import { Launch } from '../sources/launch.ts';
import { sourceReader } from '../sources/kinds.ts';
import { colourReader, turnsInLives, type Numbers, numberReaders } from '../values/layerReaders.ts';
import type { Compiling } from './surroundings.ts';
import type { CompiledLayer } from './plan.ts';

/** A vector of a layer's motion; `group` is the scale of its groups. */
const vectorReader = (layer: Layer, name: 'motion.axis' | 'motion.velocity', effect: Effect, group: number) =>
  new VectorReader(layer.settings[name], LAYER_SETTINGS[name], name, effect, group);

/** The lifetime all particles of a layer share; null where they differ. Standing ones live as long as the effect. */
function sharedLife(layer: Layer, numbers: Numbers, clock: EffectClock, dials: Reading['dials']): number | null {
  const life = numbers['births.life'];
  const mayBe = (name: 'births.standing' | 'births.perArea' | 'births.rate' | 'births.perMetre') =>
    numbers[name].bounds(dials)[1] > 0;
  if (!mayBe('births.standing') && !mayBe('births.perArea')) return life.isLevel ? life.atDials(dials) : null;
  const only = !mayBe('births.rate');
  const hasOthers = mayBe('births.perMetre') || activeBursts(layer).length > 0;
  return only && !hasOthers ? Math.max(clock.length, SHORTEST_STANDING) : null;
}

export function compileLayer(id: string, around: Compiling): CompiledLayer {
  const { effect, scene, clock } = around;
  const layer = effect.layers.byId[id]!;
  const populationOf = around.lineage.unborn.has(id) ? () => null : around.populationOf;
  const group = groupFrame(effect, layer.parent);
  const numbers = numberReaders(layer, effect, group.scale, sizeForKept(effect.quality, layer));
  const ground = layer.settings['source.ground'];
  const isOnGround = !ground.muted && ground.base.value;
  const { dials } = around;
  const life = sharedLife(layer, numbers, clock, dials);
  const source = sourceReader({
    effect,
    layer,
    scene,
    group,
    numbers,
    populationOf,
    drawnMeshOf: (of) => (of === id ? null : drawnMeshOf(of, around)),
    strikes: around.strikes,
  });
  const ride = numbers['motion.ride'];
  return {
    id,
    layer,
    group,
    numbers,
    dials,
    look: lookPlan(effect, layer, group.scale),
    colour: colourReader(layer, effect, group.scale, around.passedOn.colour.has(id)),
    turnsInLives: turnsInLives(layer),
    channels: new Channels(layer, effect, group.scale, around.passedOn.channels.has(id)),
    keepsDistance: around.keepDistance.has(id),
    source,
    around: new Around(source, layer.aim, scene, group),
    rate: new RateIntegral(numbers['births.rate'], clock, dials, layer.births.until === null),
    window: windowOf(layer, effect, clock),
    kept: keptShare(effect.quality, layer),
    beginsAt: clock.beginsAt,
    bursts: activeBursts(layer),
    signals: around.signals,
    forces: boundForces(id, group, effect),
    life,
    cap: Math.floor(numbers['births.cap'].atDials(dials)),
    isOnGround,
    ride: isOnGround || ride.bounds(dials)[1] === 0 ? null : ride,
    launch: new Launch(layer, vectorReader(layer, 'motion.axis', effect, group.scale), scene, group),
    velocityBeside: vectorReader(layer, 'motion.velocity', effect, group.scale),
    isGivenColour: around.passedOn.colour.has(id),
    isGivenSize: around.passedOn.size.has(id),
    links: bindLinks(id, effect, around.lineage),
    front: (layer.front !== null && around.fronts.get(layer.front)) || null,
    holds: layer.front !== null,
    beam: boundBeam(layer.drawn, effect, group.scale),
    takesColour: layer.settings['life.colour'].base.kind === 'taken' && !layer.settings['life.colour'].muted,
  };
}
