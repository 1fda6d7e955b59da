import {
  activeBursts,
  activeHits,
  atBone,
  atEffect,
  type Effect,
  firstHit,
  type Layer,
  lineageOf,
  listed,
  type NumberSetting,
  setNumber,
  timedBursts,
  withItem,
} from '../document/index.ts';
import { boneNamed, meshSites, type Rig, type SiteRegion } from '../geometry/index.ts';
import { whyNotMet } from '../simulation/index.ts';
import type { Mend } from './mend.ts';
import { isShaped, layerMend, mostOf } from './numbers.ts';

/** The rigs of the things on the stage, by the id of the thing. */
export type StageRigs = ReadonlyMap<string, Rig>;

interface Why {
  readonly why: string;
  readonly mend: Mend;
}

const isAbove0 = (setting: NumberSetting, effect: Effect): boolean =>
  isShaped(setting) || mostOf(setting, effect) > 0;

/** Whether links of other layers lead here. */
function isSetOff(effect: Effect, id: string): boolean {
  const { refused } = lineageOf(effect);
  return listed(effect.layers).some((other) =>
    listed(other.item.links).some(
      ({ id: linkId, item }) => item.layer === id && !item.muted && !refused.has(`${other.id}/${linkId}`),
    ),
  );
}

/** Why a layer with particles of its own gets none, and the way out; null when it does. */
export function whyNothingIsBorn(effect: Effect, id: string, layer: Layer, rigs: StageRigs): Why | null {
  const { settings, source } = layer;
  if (source.kind === 'hits') {
    if (activeHits(source).length > 0 || isSetOff(effect, id)) return null;
    return {
      why: 'nothing hits it yet: strike while it plays, or add a hit',
      mend: layerMend(id, 'Add a hit', (own) => {
        if (own.source.kind !== 'hits') return;
        own.source.hits = withItem(own.source.hits, 'first', firstHit(effect));
      }),
    };
  }
  const bursts = activeBursts(layer).filter(({ item }) => item.count > 0);
  const comesOtherwise =
    isAbove0(settings['births.rate'], effect) ||
    isAbove0(settings['births.perMetre'], effect) ||
    isAbove0(settings['births.standing'], effect) ||
    isAbove0(settings['births.perArea'], effect) ||
    isSetOff(effect, id);
  const [first] = bursts;
  if (first && !comesOtherwise && timedBursts(layer, effect).length === 0) {
    const waitsFor = first.item.signal!;
    const { name } = effect.signals.byId[waitsFor]!;
    return {
      why: `it waits for ${name}, which is not tried on the stage: announce it while it plays`,
      mend: {
        label: `Let ${name} come at 0.2 s`,
        apply: (draft) => {
          const stretch = draft.stretches.opening > 0.2 ? 'opening' : 'hold';
          draft.signals.byId[waitsFor]!.tried = { stretch, at: 0.2 };
        },
      },
    };
  }
  const isBorn = comesOtherwise || bursts.length > 0;
  if (!isBorn)
    return {
      why: 'nothing is born',
      mend: layerMend(id, 'Give it 40 births a second', (own) => setNumber(own, 'births.rate', 40)),
    };
  return whySourceIsEmpty(effect, id, layer, rigs);
}

const useSphere = (id: string): Mend =>
  layerMend(id, 'Use a sphere instead', (own) => (own.source = { kind: 'sphere', place: atEffect([0, 1, 0]) }));

/** Why a layer's source bears nothing; null when it does. */
function whySourceIsEmpty(effect: Effect, id: string, layer: Layer, rigs: StageRigs): Why | null {
  const { source } = layer;
  if (source.kind === 'particles') {
    const parent = effect.layers.byId[source.layer]!;
    const isOwn = parent.population.kind === 'own';
    if (isOwn && !lineageOf(effect).unborn.has(id)) return null;
    return {
      why: isOwn
        ? `it is born on particles of ${parent.name}, which come of its own`
        : `it is born on particles of ${parent.name}, which shows another layer’s`,
      mend: useSphere(id),
    };
  }
  if (source.kind === 'drawn') {
    const other = effect.layers.byId[source.layer]!;
    const why = source.layer === id ? 'that is this layer itself' : whyNotMet(other);
    if (why === null) return null;
    return {
      why: `it is born on the mesh of ${other.name}, and ${why}`,
      mend: useSphere(id),
    };
  }
  const nameOf = (id: string) => effect.stage.things.byId[id]?.name ?? rigs.get(id)!.name;
  const place = 'place' in source ? source.place : null;
  const thing = 'thing' in source ? source.thing : place && 'thing' in place ? place.thing : null;
  if (thing === null) return null;
  const rig = rigs.get(thing);
  if (!rig) {
    const [other] = [...rigs.keys()];
    return {
      why: 'its source stands on something that is not on the stage',
      mend: other
        ? layerMend(id, `Use ${nameOf(other)}`, (own) => {
            if ('thing' in own.source) own.source.thing = other;
            else if ('place' in own.source && 'thing' in own.source.place) own.source.place.thing = other;
          })
        : useSphere(id),
    };
  }
  const first = rig.bones[0]!.name;
  const name = nameOf(thing);
  if (place?.kind === 'bone' && boneNamed(rig, place.bone) < 0)
    return {
      why: `${name} has no bone "${place.bone}"`,
      mend: layerMend(id, `Use "${first}"`, (own) => (own.source = { kind: 'point', place: atBone(thing, first) })),
    };
  if (source.kind === 'bones' && source.bones.length > 0 && source.bones.every((name) => boneNamed(rig, name) < 0))
    return {
      why: `${name} has none of the bones it is born on`,
      mend: layerMend(id, 'Use every bone', (own) => (own.source = { kind: 'bones', thing, bones: [] })),
    };
  const region = layer.settings['source.region'].base.value as SiteRegion;
  if (source.kind === 'mesh' && meshSites(rig, source.bones, region).isEmpty)
    return source.bones.length > 0
      ? {
          why: 'no skin moves with the bones it keeps to',
          mend: layerMend(id, 'Use the whole skin', (own) => (own.source = { kind: 'mesh', thing, bones: [] })),
        }
      : {
          why: region === 'volume' ? `${name} has no inside` : `${name} has no surface to be born on`,
          mend: layerMend(id, 'Use its vertices', (own) => {
            own.settings['source.region'].base = { kind: 'fixed', value: 'vertices' };
          }),
        };
  return null;
}
