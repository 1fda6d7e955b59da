import {
  atBone,
  concerns,
  inWorld,
  listed,
  newSurface,
  type Effect,
  type NumberSetting,
  type Surface,
  settingsByName,
} from '../document/index.ts';
import { boneNamed } from '../geometry/index.ts';
import { whyNotMet } from '../simulation/index.ts';
import type { Missing } from './looks.ts';
import type { Mend, Problem } from './mend.ts';
import type { StageRigs } from './sources.ts';

const isNothing = (surface: Surface, name: string): boolean => {
  const { base, shapers } = settingsByName<NumberSetting>(surface)[name]!;
  return base.kind === 'fixed' && base.value === 0 && shapers.order.length === 0;
};

/** Why a surface is never met, and the way out; null when it can be. */
function whyNeverMet(
  effect: Effect,
  id: string,
  surface: Surface,
  rigs: StageRigs,
  missing: Missing,
): Omit<Problem, 'id'> | null {
  const take = (label: string, recipe: (own: Surface, draft: Effect) => void): Mend => ({
    label,
    apply: (draft) => recipe(draft.surfaces.byId[id]!, draft),
  });
  const onGround = take('Meet the ground instead', (own, draft) => {
    draft.surfaces.byId[id] = { ...newSurface('ground', { place: inWorld() }), layers: own.layers };
  });
  const gone = surface.kind === 'mesh' ? missing.get(surface.asset) : undefined;
  if (surface.kind === 'mesh' && gone !== undefined)
    return { sentence: `A surface is never met, for ${surface.name} could not be had: ${gone}`, mend: onGround };
  if (surface.kind === 'layer') {
    const layer = effect.layers.byId[surface.layer]!;
    const why = whyNotMet(layer);
    if (why === null) return null;
    return { sentence: `The mesh of ${layer.name} is never met: ${why}.`, mend: onGround };
  }
  const [other] = [...rigs.keys()];
  const nameOf = (thing: string) => effect.stage.things.byId[thing]?.name ?? rigs.get(thing)!.name;
  const thing = surface.kind === 'thing' ? surface.thing : 'thing' in surface.place ? surface.place.thing : null;
  if (thing !== null && !rigs.has(thing)) {
    const sentence = 'A surface is never met: what it stands on is not on the stage.';
    if (surface.kind === 'thing')
      return {
        sentence,
        mend: other ? take(`Meet ${nameOf(other)}`, (own) => own.kind === 'thing' && (own.thing = other)) : onGround,
      };
    return {
      sentence,
      mend: take('Put it in the world', (own) => 'place' in own && (own.place = inWorld(own.place.offset))),
    };
  }
  if (surface.kind !== 'thing' && surface.place.kind === 'bone') {
    const { place } = surface;
    const rig = rigs.get(place.thing)!;
    const first = rig.bones[0]!.name;
    if (boneNamed(rig, place.bone) < 0)
      return {
        sentence: `A surface hangs on "${place.bone}", which ${nameOf(place.thing)} does not have.`,
        mend: take(`Use "${first}"`, (own) => 'place' in own && (own.place = atBone(place.thing, first))),
      };
  }
  if (surface.kind === 'sphere' && isNothing(surface, 'radius'))
    return {
      sentence: 'A sphere is never met: its radius is 0.',
      mend: take('Make it 50 cm', (own) => {
        if (own.kind === 'sphere') own.settings.radius.base = { kind: 'fixed', value: 0.5 };
      }),
    };
  return null;
}

/** What is wrong with the surfaces that a layer is the first to meet, so that each is told of once. */
export function surfaceProblems(effect: Effect, layerId: string, rigs: StageRigs, missing: Missing): Problem[] {
  const firstOf = (surface: Surface) => effect.layers.order.find((id) => concerns(surface, id)) ?? null;
  return listed(effect.surfaces).flatMap(({ id, item }) => {
    const problem = item.muted || firstOf(item) !== layerId ? null : whyNeverMet(effect, id, item, rigs, missing);
    return problem ? [{ id, ...problem }] : [];
  });
}
