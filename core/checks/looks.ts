import { dialShares, lookPlan, newReading, NumberReader } from '../simulation/index.ts';
import {
  listed,
  newStep,
  setStep,
  stepsOf,
  withItem,
  withoutItem,
  type Effect,
  type Layer,
  type Step,
  STEP_NAMES,
  STEP_SETTINGS,
} from '../document/index.ts';
import type { Problem } from './mend.ts';

/** Pictures and meshes of an effect that could not be had, by the hash of their asset, with the reason. */
export type Missing = ReadonlyMap<string, string>;

/** Why a layer's kind of drawing can show nothing, and the way out. */
export function whyNothingIsDrawn(effect: Effect, { drawn }: Layer): { why: string; mend: Problem['mend'] } | null {
  if (drawn.kind === 'mesh' && !listed(drawn.meshes).some(({ item }) => item.chance > 0))
    return {
      why: drawn.meshes.order.length === 0 ? 'it has no mesh to draw' : 'none of its meshes has a chance',
      mend: null,
    };
  if (drawn.kind === 'body' && !effect.stage.things.byId[drawn.thing])
    return { why: 'it is the skin of a figure that does not stand on the stage', mend: null };
  return null;
}

/** How much of a middling particle of a layer its dissolves have left at some ages, 0 to 1. */
export function leftAt(effect: Effect, layer: Layer, life: number, ages: readonly number[]): number[] {
  const readers = stepsOf(effect, layer).flatMap(({ id, item }) =>
    item.kind === 'dissolve' && !item.muted
      ? [new NumberReader(item.settings.amount, STEP_SETTINGS.dissolve.amount, `step/${id}/amount`, effect)]
      : [],
  );
  const reading = { ...newReading(), life, dials: dialShares(effect) };
  return ages.map((age) => {
    reading.age = age;
    return readers.reduce(
      (left, reader) => left * (1 - reader.readFrom((reader.low + reader.high) / 2, reading) / 100),
      1,
    );
  });
}

/** What is wrong with a layer's look: pictures that are not there, and numbers that had no room. */
export function lookProblems(effect: Effect, layerId: string, missing: Missing): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  const steps = stepsOf(effect, layer);
  return [
    ...steps.flatMap(({ id, item }) => pictureProblem(layerId, layer, id, item, missing)),
    ...hazeProblem(layerId, layer, missing),
    ...mirroredProblem(effect, layer, missing),
    ...meshProblems(layerId, layer, missing),
    ...skinProblem(effect, layer, missing),
    ...roomProblem(effect, layer, steps),
  ];
}

function pictureProblem(layerId: string, layer: Layer, id: string, step: Step, missing: Missing): Problem[] {
  if (step.muted || !('picture' in step)) return [];
  const needs = step.kind === 'picture' || step.settings.by.base.value === 'a picture';
  if (!needs) return [];
  const mend = {
    label: step.kind === 'picture' ? 'Draw a soft dot instead' : 'Dissolve by clouds instead',
    apply: (draft: Effect) => withoutPicture(draft, layerId, id),
  };
  if (!step.picture)
    return [{ id: `picture/${id}`, sentence: `${layer.name} has a step without a picture: it does nothing.`, mend }];
  const why = missing.get(step.picture.asset);
  return why === undefined
    ? []
    : [
        {
          id: `picture/${id}`,
          sentence:
            step.kind === 'picture'
              ? `${layer.name} shows nothing of ${step.picture.name}, for it could not be had: ${why}`
              : `${layer.name} dissolves without ${step.picture.name}, for it could not be had: ${why}`,
          mend,
        },
      ];
}

/** Lets a step do without its picture, for all who use the look. */
function withoutPicture(draft: Effect, layerId: string, id: string): void {
  const { look } = draft.layers.byId[layerId]!;
  const holder = look.kind === 'own' ? look : draft.looks.byId[look.look];
  const step = holder?.steps.byId[id];
  if (!holder || !step) return;
  if (step.kind === 'dissolve') setStep(step, 'by', 'clouds');
  else holder.steps = withItem(holder.steps, id, newStep('drawn'), holder.steps.order.indexOf(id));
}

function hazeProblem(id: string, { name, drawn }: Layer, missing: Missing): Problem[] {
  if (drawn.kind !== 'haze' || drawn.settings.bends.base.value !== 'by a picture') return [];
  const why = drawn.picture ? missing.get(drawn.picture.asset) : 'none is chosen';
  if (why === undefined) return [];
  return [
    {
      id: 'haze',
      sentence: `${name} bends nothing, for its normal map could not be had: ${why}`,
      mend: {
        label: 'Bend outward instead',
        apply: (draft) => {
          const bent = draft.layers.byId[id]!.drawn;
          if (bent.kind === 'haze') bent.settings.bends.base = { kind: 'fixed', value: 'outward' };
        },
      },
    },
  ];
}

function mirroredProblem({ stage }: Effect, { name, drawn, settings }: Layer, missing: Missing): Problem[] {
  const { isOn, picture } = stage.air.surroundings;
  const why = isOn && picture ? missing.get(picture.asset) : undefined;
  if (why === undefined || drawn.kind !== 'mesh' || settings['appearance.lit'].base.value === 'unlit') return [];
  return [
    {
      id: 'mirrored',
      sentence: `${name} mirrors the sky, for ${picture!.name} could not be had: ${why}`,
      mend: { label: 'Mirror the sky', apply: (draft) => (draft.stage.air.surroundings.picture = null) },
    },
  ];
}

function meshProblems(id: string, { name, drawn }: Layer, missing: Missing): Problem[] {
  if (drawn.kind !== 'mesh') return [];
  return listed(drawn.meshes).flatMap(({ id: meshId, item }) => {
    const why = missing.get(item.asset);
    if (why === undefined) return [];
    return [
      {
        id: `mesh/${meshId}`,
        sentence: `${name} is drawn without ${item.name}, for it could not be had: ${why}`,
        mend: {
          label: `Take ${item.name} out`,
          apply: (draft: Effect) => {
            const own = draft.layers.byId[id]!.drawn;
            if (own.kind === 'mesh') own.meshes = withoutItem(own.meshes, meshId);
          },
        },
      },
    ];
  });
}

function skinProblem({ stage }: Effect, { name, drawn }: Layer, missing: Missing): Problem[] {
  const thing = drawn.kind === 'body' ? stage.things.byId[drawn.thing] : undefined;
  const why = thing && missing.get(thing.asset);
  if (why === undefined) return [];
  return [{ id: 'skin', sentence: `${name} shows nothing, for ${thing!.name} could not be had: ${why}`, mend: null }];
}

/** Things that do not stand on the stage, for they could not be had: told with the first layer. */
export function stageProblems({ stage }: Effect, missing: Missing): Problem[] {
  return listed(stage.things).flatMap(({ id, item }) => {
    const why = missing.get(item.asset);
    if (why === undefined) return [];
    return [
      {
        id: `thing/${id}`,
        sentence: `${item.name} does not stand on the stage, for it could not be had: ${why}`,
        mend: {
          label: 'Take it off the stage',
          apply: (draft: Effect) => {
            draft.stage.things = withoutItem(draft.stage.things, id);
          },
        },
      },
    ];
  });
}

function roomProblem(effect: Effect, layer: Layer, steps: readonly { id: string; item: Step }[]): Problem[] {
  const { refused } = lookPlan(effect, layer);
  if (refused.length === 0) return [];
  const words = refused.map(({ step: of, word }) => {
    const step = steps.find(({ id }) => id === of);
    return step ? `${word} of its ${STEP_NAMES[step.item.kind].toLowerCase()}` : word;
  });
  return [
    {
      id: 'room',
      sentence: `${layer.name} has more numbers that differ between its particles than there is room for: ${words.join(', ')} stand at their middle for all.`,
      mend: null,
    },
  ];
}
