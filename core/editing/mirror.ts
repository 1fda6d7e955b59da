import {
  collectionOf,
  FORCES,
  listed,
  placesOfLayer,
  settingsByName,
  settingsOfLayer,
  withoutDust,
  type Effect,
  type Force,
  type Id,
  type NumberSetting,
  type Place,
  type PlaceKey,
  type Setting,
  type Vector,
  type VectorSetting,
} from '../document/index.ts';
import { boneNamed, type Rig } from '../geometry/index.ts';
import { invertAffine, multiplyInto, transformPoint } from '../maths/index.ts';
import { degreesOf, rotationInto } from '../simulation/index.ts';
import { childrenOf } from './regroup.ts';

/** The rigs of the things on the stage, by the id of the thing. */
type Rigs = ReadonlyMap<Id, Rig>;

const SIDES: readonly (readonly [RegExp, string])[] = [
  [/left/, 'right'],
  [/right/, 'left'],
  [/Left/, 'Right'],
  [/Right/, 'Left'],
  [/(^|[._ -])l($|[._ -])/, '$1r$2'],
  [/(^|[._ -])r($|[._ -])/, '$1l$2'],
  [/(^|[._ -])L($|[._ -])/, '$1R$2'],
  [/(^|[._ -])R($|[._ -])/, '$1L$2'],
];

/** The bone of the other side: "hand.left" is over against "hand.right". What stands in the middle is its own. */
export function otherSide(bone: string): string {
  const [side] = SIDES.filter(([pattern]) => pattern.test(bone));
  return side ? bone.replace(...side) : bone;
}

/** The bone over against a bone, if its rig has it; else the bone itself. */
function overAgainst(rig: Rig | undefined, bone: string): string {
  const other = otherSide(bone);
  return rig && boneNamed(rig, other) >= 0 ? other : bone;
}

const opposite = (number: number) => (number === 0 ? 0 : -number);
/** A place or a direction, with left and right exchanged. */
const mirrored = ([x, y, z]: Vector): Vector => [opposite(x), y, z];
/** What degrees round X, then Y, then Z become with left and right exchanged. */
const mirroredTurn = ([x, y, z]: Vector): Vector => [x, opposite(y), opposite(z)];

type Hung = Pick<PlaceKey, 'offset' | 'turn'>;
const eachHung = (place: Place, change: (hung: Hung) => Hung): void => {
  Object.assign(place, change(place));
  place.keys = collectionOf(listed(place.keys).map(({ id, item }) => [id, { ...item, ...change(item) }] as const));
};

/** How a frame on a bone is carried to the bone over against it, by how both lie at rest. */
function mirrorOnBone(rig: Rig, from: string, to: string): (hung: Hung) => Hung {
  const bind = (bone: string) => rig.inverseBind.slice(16 * boneNamed(rig, bone), 16 * boneNamed(rig, bone) + 16);
  const rest = invertAffine(bind(from));
  for (const entry of [0, 4, 8, 12]) rest[entry] = -rest[entry]!;
  const across = new Float64Array(16);
  multiplyInto(across, 0, bind(to), 0, rest, 0);
  return ({ offset, turn }) => {
    const [own, both] = [new Float64Array(16), new Float64Array(16)];
    rotationInto(own, ...turn);
    for (let row = 0; row < 3; row++) own[row] = -own[row]!;
    multiplyInto(both, 0, across, 0, own, 0);
    return {
      offset: transformPoint(across, 0, offset).map(withoutDust) as Vector,
      turn: degreesOf(both).map(withoutDust) as Vector,
    };
  };
}

function mirrorPlace(place: Place, rigs: Rigs): void {
  const rig = 'thing' in place ? rigs.get(place.thing) : undefined;
  if (place.kind !== 'bone' || !rig || boneNamed(rig, place.bone) < 0)
    return eachHung(place, ({ offset, turn }) => ({ offset: mirrored(offset), turn: mirroredTurn(turn) }));
  const other = overAgainst(rig, place.bone);
  eachHung(place, mirrorOnBone(rig, place.bone, other));
  place.bone = other;
}

/** A number the other way round: its base, and what shapers make of it beside multiplying. */
function reverse(setting: NumberSetting): void {
  const { base } = setting;
  if (base.kind === 'fixed') base.value = opposite(base.value);
  else if (base.kind === 'spread') [base.low, base.high] = [opposite(base.high), opposite(base.low)];
  for (const { item } of listed(setting.shapers)) {
    if (item.combine === 'multiply' || item.mapping.kind === 'gradient') continue;
    const curves = item.mapping.kind === 'curve' ? [item.mapping.curve] : [item.mapping.low, item.mapping.high];
    for (const { keys } of curves)
      for (const { item: key } of listed(keys)) {
        key.value = opposite(key.value);
        key.slopeIn = opposite(key.slopeIn);
        key.slopeOut = opposite(key.slopeOut);
      }
  }
}

function changeVector({ base }: VectorSetting, change: (vector: Vector) => Vector): void {
  if (base.kind === 'fixed') base.value = change(base.value);
  else {
    const [a, b] = [change(base.low), change(base.high)];
    base.low = a.map((x, axis) => Math.min(x, b[axis]!)) as Vector;
    base.high = a.map((x, axis) => Math.max(x, b[axis]!)) as Vector;
  }
}

/** What goes round goes round the other way; what leads somewhere leads to the other side. */
function mirrorForce(force: Force, rigs: Rigs): void {
  mirrorPlace(force.place, rigs);
  const settings = settingsByName(force);
  for (const name of FORCES[force.kind].mirrored) {
    const setting = settings[name]!;
    if (FORCES[force.kind].settings[name]!.value === 'vector') changeVector(setting as VectorSetting, mirrored);
    else reverse(setting as NumberSetting);
  }
}

/** Exchanges left and right of a layer, in a draft, in the frame of the group it stands in. */
export function mirrorLayer(draft: Effect, id: Id, rigs: Rigs): void {
  const layer = draft.layers.byId[id]!;
  const { settings, source } = layer;
  const forces = new Set<Place>(listed(layer.forces).map(({ item }) => item.place));
  for (const place of placesOfLayer(draft, id)) if (!forces.has(place)) mirrorPlace(place, rigs);
  for (const { item } of listed(layer.forces)) mirrorForce(item, rigs);
  if ('bones' in source) source.bones = source.bones.map((bone) => overAgainst(rigs.get(source.thing), bone));
  if ('place' in source) changeVector(settings['source.stretch'], mirrored);
  changeVector(settings['motion.velocity'], mirrored);
  // An axis that is gone along leads to the other side; one that is gone round is gone round the other way.
  const isRound = settings['motion.launch'].base.value === 'round';
  changeVector(settings['motion.axis'], isRound ? (axis) => mirroredTurn(axis) : mirrored);
  reverse(settings['motion.angle']);
  reverse(settings['life.angle']);
  reverse(settings['life.turning']);
  changeVector(settings['life.tilt'], mirroredTurn);
  changeVector(settings['life.axle'], mirrored);
  reverse(settings['appearance.pivotAcross']);
  for (const { address, setting } of settingsOfLayer(draft, id))
    if (address.kind === 'step') mirrorStep(address.setting, setting);
}

/** What of a look runs across a particle runs across it the other way. */
function mirrorStep(name: string, setting: Setting): void {
  if (['across', 'offsetAcross', 'turn'].includes(name)) reverse(setting as NumberSetting);
}

/** Exchanges left and right of a group and of all that stands in it, in a draft, in the frame of its own parent. */
export function mirrorGroup(draft: Effect, id: Id, rigs: Rigs): void {
  const group = draft.groups.byId[id]!;
  group.translation = mirrored(group.translation);
  group.rotation = mirroredTurn(group.rotation);
  mirrorChildren(draft, id, rigs);
}

function mirrorChildren(draft: Effect, parent: Id | null, rigs: Rigs): void {
  const { layers, groups } = childrenOf(draft, parent);
  for (const layer of layers) mirrorLayer(draft, layer, rigs);
  for (const group of groups) mirrorGroup(draft, group, rigs);
}

/** Exchanges left and right of a whole effect, in a draft. The stage stays as it is. */
export function mirrorEffect(draft: Effect, rigs: Rigs): void {
  mirrorChildren(draft, null, rigs);
  const { bounds } = draft.quality;
  if (bounds) [bounds.low[0], bounds.high[0]] = [-bounds.high[0], -bounds.low[0]];
  for (const { item } of listed(draft.forces)) mirrorForce(item.force, rigs);
  for (const { item } of listed(draft.surfaces)) if ('place' in item) mirrorPlace(item.place, rigs);
  for (const { item } of listed(draft.fronts)) mirrorPlace(item.place, rigs);
  for (const { item: look } of listed(draft.looks))
    for (const { item: step } of listed(look.steps))
      for (const [name, setting] of Object.entries(step.settings)) mirrorStep(name, setting as Setting);
}
