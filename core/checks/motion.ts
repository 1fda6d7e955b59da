import {
  FORCES,
  forceWord,
  atEffect,
  forcesOn,
  LINK_SETTINGS,
  listed,
  type Effect,
  type Force,
  type Id,
} from '../document/index.ts';
import { boneNamed } from '../geometry/index.ts';
import { NumberReader } from '../simulation/index.ts';
import { lifetimes, samplesAt } from './lifeSamples.ts';
import type { Problem } from './mend.ts';
import { isNothing, layerMend, mostOf, said } from './numbers.ts';
import type { StageRigs } from './sources.ts';

/** Seconds in which an orbit halves the way, at most, for it to fight a launch outward. */
const FIRM = 0.02;

/** A speed outward, which an orbit holds against. */
function orbitFought(effect: Effect, layerId: Id): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  const launch = layer.settings['motion.launch'].base.value;
  const speed = layer.settings['motion.speed'];
  if (layer.population.kind === 'follows' || !['outward', 'normal'].includes(launch)) return [];
  if (isNothing(speed, effect)) return [];
  const orbit = forcesOn(effect, layerId).find(
    ({ item }) => item.kind === 'orbit' && !item.muted && mostOf(item.settings.halves, effect) <= FIRM,
  );
  if (!orbit) return [];
  return [
    {
      id: 'orbit',
      sentence: `${layer.name} leaves outward at ${said(mostOf(speed, effect))} m/s, against the orbit that holds it.`,
      severity: 'doubtful',
      where: 'motion',
      measure: mostOf(speed, effect),
      mend: layerMend(layerId, 'Let it leave without speed', (own) => {
        own.settings['motion.speed'].base = { kind: 'fixed', value: 0 };
      }),
    },
  ];
}

/** Forces that hang on something that is not there. */
function forcesAdrift(effect: Effect, layerId: Id, rigs: StageRigs): Problem[] {
  const { name, forces } = effect.layers.byId[layerId]!;
  return listed(forces).flatMap(({ id, item }) => {
    const { place } = item;
    if (item.muted || !('thing' in place)) return [];
    const rig = rigs.get(place.thing);
    const isThere = rig && (place.kind !== 'bone' || boneNamed(rig, place.bone) >= 0);
    if (isThere) return [];
    const thing = effect.stage.things.byId[place.thing]?.name ?? 'something';
    const what =
      rig && place.kind === 'bone'
        ? `the bone "${place.bone}", which ${thing} does not have`
        : `${thing}, which is not on the stage`;
    return [
      {
        id: `adrift/${id}`,
        sentence: `${name}: its ${forceWord(item.kind)} hangs on ${what}.`,
        where: 'motion',
        mend: layerMend(layerId, 'Hang it on the effect', (own) => {
          own.forces.byId[id]!.place = atEffect([0, 1, 0]);
        }),
      } satisfies Problem,
    ];
  });
}

const moves = ({ kind, muted }: Force): boolean => !muted && FORCES[kind].isMover;

/** What children take over that leaves them still, without size, or dark. */
function frozenChildren(effect: Effect, layerId: Id): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  if (layer.population.kind === 'follows') return [];
  const isStill =
    isNothing(layer.settings['motion.speed'], effect) &&
    !forcesOn(effect, layerId).some(({ item }) => moves(item)) &&
    isNothing(layer.settings['motion.inherit'], effect);
  return listed(layer.links).flatMap(({ id, item }): Problem[] => {
    const child = effect.layers.byId[item.layer];
    if (item.muted || !child || child.population.kind === 'follows') return [];
    const passed = (name: 'velocity' | 'size') =>
      new NumberReader(item.settings[name], LINK_SETTINGS[name], name, effect).high;
    const found: Problem[] = [];
    const hasNoSpeed =
      isNothing(child.settings['motion.speed'], effect) &&
      !forcesOn(effect, item.layer).some(({ item: force }) => moves(force));
    if (isStill && hasNoSpeed && passed('velocity') !== 0 && isNothing(child.settings['motion.inherit'], effect))
      found.push({
        id: `frozen/${id}`,
        sentence: `${child.name} goes only by the speed it takes over from ${layer.name}, which stands still.`,
        severity: 'doubtful',
        where: 'links',
        mend: layerMend(item.layer, `Give ${child.name} a speed of its own`, (own) => {
          own.settings['motion.speed'].base = { kind: 'fixed', value: 0.5 };
        }),
      });
    // Whatever dies of age passes on what it has at its end.
    const end = item.on === 'death' ? samplesAt(effect, layerId, [1])[0]! : null;
    if (end && passed('size') >= 99 && end.size < 1e-5 && lifetimes(effect, layerId)[2] > 0)
      found.push({
        id: `sizeless/${id}`,
        sentence: `${child.name} takes over the size that ${layer.name} dies with, which is none.`,
        where: 'links',
        mend: layerMend(layerId, 'Pass no size on', (own) => {
          own.links.byId[id]!.settings.size.base = { kind: 'fixed', value: 0 };
        }),
      });
    return found;
  });
}

export const motionProblems = (effect: Effect, layerId: Id, rigs: StageRigs): Problem[] => [
  ...orbitFought(effect, layerId),
  ...forcesAdrift(effect, layerId, rigs),
  ...frozenChildren(effect, layerId),
];
