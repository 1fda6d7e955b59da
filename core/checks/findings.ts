import {
  collectionOf,
  isSwitchedOn,
  listed,
  ownerOf,
  setNumber,
  withItem,
  type Effect,
  type Id,
  type Key,
  type Layer,
  type NumberSetting,
  type Shaper,
} from '../document/index.ts';
import { channelProblems } from './channels.ts';
import { capProblems, costProblems, type ObservedCost } from './cost.ts';
import { frontProblems } from './fronts.ts';
import { idleProblems } from './idle.ts';
import { lightProblems } from './light.ts';
import { leftAt, lookProblems, stageProblems, whyNothingIsDrawn, type Missing } from './looks.ts';
import { linkProblems } from './links.ts';
import type { Mend, Problem, Severity, Where } from './mend.ts';
import { motionProblems } from './motion.ts';
import { nameProblems } from './names.ts';
import { releaseProblems } from './release.ts';
import { sizeProblems } from './sizes.ts';
import { flickerProblems } from './solids.ts';
import { whyNothingIsBorn, type StageRigs } from './sources.ts';
import { surfaceProblems } from './surfaces.ts';
import { deadSeconds, timingProblems } from './timing.ts';
import { trailProblems } from './trails.ts';
import { turnProblems } from './turns.ts';
import { evenAges, lifeSamples, lifetimes, samplesAt } from './lifeSamples.ts';

export interface Finding {
  readonly id: string;
  /** The layer that it is about; null where it is about the effect as a whole. */
  readonly layerId: Id | null;
  readonly sentence: string;
  readonly severity: Severity;
  /** Where it is put right. */
  readonly where: Where;
  readonly measure: number | null;
  readonly mend: Mend | null;
}

/** What only the running simulation knows. */
export interface Observed extends ObservedCost {
  /** By layer id. */
  readonly refused: Readonly<Record<string, number>>;
  /** Whether as many live as the project's budget lets. */
  readonly isBudgetFull: boolean;
  /** Births that found no particle of another layer to be born on, by layer id. */
  readonly lost?: Readonly<Record<string, number>>;
  /** Pictures that could not be had. */
  readonly missing?: Missing;
}

type Told = Omit<Problem, 'id'>;

/** Light at birth or death above this share of its peak is seen to pop. */
const POP_SHARE = 0.02;
const FADE_SECONDS = 0.08;
/** How near to birth and death is looked, short beside any fade that can be seen. */
const NEAR_SECONDS = 0.00001;

const fixed = (setting: NumberSetting): number =>
  setting.muted
    ? 0
    : setting.base.kind === 'fixed'
      ? setting.base.value
      : setting.base.kind === 'spread'
        ? setting.base.high
        : 1;

const set = (layerId: string, name: keyof Layer['settings'], value: number) => (draft: Effect) =>
  setNumber(draft.layers.byId[layerId]!, name, value);

/** Whether another layer shows a layer's particles, is born on them or set off by them, is drawn inside it, or meets it. */
const isUsed = (effect: Effect, id: Id): boolean =>
  listed(effect.layers).some(
    ({ id: other, item: { population, source, inside } }) =>
      other !== id &&
      ((population.kind === 'follows' && population.layer === id) ||
        ('layer' in source && source.layer === id) ||
        inside === id),
  ) ||
  effect.layers.byId[id]!.links.order.length > 0 ||
  listed(effect.surfaces).some(({ item }) => item.kind === 'layer' && item.layer === id);

/** Why a layer cannot show anything, and the way out; null when it can. */
function whyNothing(effect: Effect, id: string, layer: Layer, rigs: StageRigs): Told | null {
  const say = (why: string, mend: Mend | null) => ({ sentence: `${layer.name} shows nothing: ${why}.`, mend });
  const { settings } = layer;
  // Others may be meant to be seen in its place.
  if (layer.hidden && isUsed(effect, id)) return null;
  if (layer.hidden)
    return say('it is hidden', { label: 'Show it', apply: (draft) => (draft.layers.byId[id]!.hidden = false) });
  if (!layer.solo && listed(effect.layers).some(({ item }) => item.solo))
    return say('another layer is seen alone', {
      label: 'See all layers',
      apply: (draft) => listed(draft.layers).forEach(({ item }) => (item.solo = false)),
    });
  if (!isSwitchedOn(effect, id)) {
    const dial = effect.dials.byId[layer.seenBy!]!;
    return say(`its switch, ${dial.name}, is off`, {
      label: `Switch ${dial.name} on`,
      apply: (draft) => {
        const own = draft.dials.byId[layer.seenBy!];
        if (own?.kind === 'switch') own.value = true;
      },
    });
  }
  const ownerId = ownerOf(effect, id);
  const owner = effect.layers.byId[ownerId]!;
  const unborn = whyNothingIsBorn(effect, ownerId, owner, rigs);
  if (unborn)
    return say(owner === layer ? unborn.why : `${owner.name}, which it follows, has no particles`, unborn.mend);
  const undrawn = whyNothingIsDrawn(effect, layer);
  if (undrawn) return say(undrawn.why, undrawn.mend);
  const life = lifeSamples(effect, id, 32);
  if (life.every(({ size }) => size === 0))
    return say('its size is zero', { label: 'Make it 5 cm', apply: set(id, 'life.size', 0.05) });
  if (life.every(({ opacity }) => opacity === 0))
    return say('it is fully transparent', {
      label: 'Make it opaque',
      apply: (draft) => {
        set(id, 'life.opacity', 100)(draft);
        if (lifeSamples(draft, id, 32).every(({ opacity }) => opacity === 0))
          draft.layers.byId[id]!.settings['life.opacity'].shapers = collectionOf([]);
      },
    });
  if (
    life.every(({ intensity, rgb }) => intensity === 0 || rgb.every((c) => c === 0)) &&
    settings['appearance.blend'].base.value === 'additive'
  )
    return say('it adds no light', { label: 'Set its intensity to 1', apply: set(id, 'life.intensity', 1) });
  return null;
}

/** A key at a fixed number of seconds from birth or death, level with a value. */
const levelKey = (anchor: Key['at']['anchor'], seconds: number, value: number): Key => ({
  at: { anchor, value: seconds },
  value,
  slopeIn: 0,
  slopeOut: 0,
});

function addFade(layer: Layer, end: 'birth' | 'death'): void {
  const anchor = end === 'birth' ? 'afterBirth' : 'beforeDeath';
  const keys = collectionOf<Key>([
    ['edge', levelKey(anchor, 0, 0)],
    ['full', levelKey(anchor, FADE_SECONDS, 1)],
  ]);
  const shaper: Shaper = {
    reads: { kind: 'age' },
    mapping: { kind: 'curve', curve: { keys } },
    combine: 'multiply',
    amount: 1,
    muted: false,
  };
  const { shapers } = layer.settings['life.opacity'];
  const only = shapers.order.length === 1 ? shapers.byId[shapers.order[0]!]! : null;
  // Where one curve already shapes the fade, it is bent down at that end; otherwise a fade of its own is added.
  if (only?.mapping.kind === 'curve' && only.reads.kind === 'age' && only.mapping.curve.keys.order.length >= 2) {
    const own = only.mapping.curve.keys;
    const id = end === 'birth' ? own.order[0]! : own.order[own.order.length - 1]!;
    const was = own.byId[id]!;
    const next = withItem(
      own,
      end === 'birth' ? 'fadein' : 'fadeout',
      levelKey(anchor, FADE_SECONDS, was.value),
      end === 'birth' ? 1 : own.order.length - 1,
    );
    next.byId[id] = { at: { anchor: 'share', value: end === 'birth' ? 0 : 1 }, value: 0, slopeIn: 0, slopeOut: 0 };
    only.mapping.curve.keys = next;
    return;
  }
  layer.settings['life.opacity'].shapers = withItem(shapers, end === 'birth' ? 'fadein' : 'fadeout', shaper);
}

function pops(effect: Effect, id: string, layer: Layer): Told[] {
  const owner = effect.layers.byId[ownerOf(effect, id)]!.settings;
  const stand = fixed(owner['births.standing']) > 0 || fixed(owner['births.perArea']) > 0;
  if (stand && fixed(owner['births.rate']) === 0) return [];
  // The ends as they are neared: a curve that leaps at the very end has all its light there until then.
  const near = Math.min(0.00002, NEAR_SECONDS / Math.max(0.02, lifetimes(effect, id)[1]));
  const ages = [0, near, 1 - near, 1, ...evenAges(128)];
  const left = leftAt(effect, layer, lifetimes(effect, id)[1], ages);
  const energies = samplesAt(effect, id, ages).map(({ energy }, n) => energy * left[n]!);
  const [birth, newborn, dying, death, ...life] = energies;
  const peak = Math.max(...life);
  if (!(peak > 0)) return [];
  return (['birth', 'death'] as const).flatMap((end) => {
    const share = (end === 'birth' ? Math.max(birth!, newborn!) : Math.max(dying!, death!)) / peak;
    // What is held is seen before it is freed, as it is then.
    if (share <= POP_SHARE || (end === 'birth' && layer.front !== null)) return [];
    const percent = Math.max(1, Math.floor(share * 100 + 0.5));
    const verb = end === 'birth' ? 'pops in at birth' : 'pops out at death';
    return [
      {
        sentence: `${layer.name} ${verb}: ${percent}% of its light is there at age ${end === 'birth' ? 0 : 1}.`,
        measure: percent,
        mend: {
          label: `Fade ${end === 'birth' ? 'in' : 'out'} over ${FADE_SECONDS} s`,
          apply: (draft: Effect) => addFade(draft.layers.byId[id]!, end),
        },
      },
    ];
  });
}

/** Births a second, roughly, and what of them could live at once. */
function refusals(effect: Effect, id: string, layer: Layer, observed: Observed): Told | null {
  const refused = observed.refused[id] ?? 0;
  if (refused === 0) return null;
  if (observed.isBudgetFull)
    return {
      sentence: `${layer.name} had ${refused} births refused: the project’s budget is used up. Raise it in the stage’s corner, or thin a layer out.`,
      mend: null,
    };
  const cap = fixed(layer.settings['births.cap']);
  const needed = fixed(layer.settings['births.rate']) * lifetimes(effect, id)[2];
  const raised = Math.min(1_000_000, Math.ceil(Math.max(needed * 1.1, cap * 2) / 100) * 100);
  return {
    sentence: `${layer.name} had ${refused} births refused: ${cap} may live at once.`,
    mend: { label: `Let ${raised} live`, apply: set(id, 'births.cap', raised) },
  };
}

/** Births that were due while there was nothing to be born on. */
function losses(effect: Effect, id: string, layer: Layer, observed: Observed): Problem[] {
  const lost = observed.lost?.[id] ?? 0;
  if (lost === 0 || layer.source.kind !== 'particles') return [];
  const parent = effect.layers.byId[layer.source.layer]!.name;
  return [
    {
      id: 'lost',
      sentence: `${layer.name} lost ${lost} ${lost === 1 ? 'birth' : 'births'}: no particle of ${parent} lived to be born on.`,
      severity: 'doubtful',
      measure: lost,
      mend: null,
    },
  ];
}

/** A problem as a finding of a layer, or of the effect. */
const asFinding = (problem: Problem, layerId: Id | null, where: Where): Finding => ({
  id: layerId === null ? problem.id : `${layerId}/${problem.id}`,
  layerId,
  sentence: problem.sentence,
  severity: problem.severity ?? 'wrong',
  where: problem.where ?? where,
  measure: problem.measure ?? null,
  mend: problem.mend,
});
/** Problems by where they are put right. */
type Chaptered = readonly (readonly [Where, readonly Problem[]])[];
const told = (chapters: Chaptered, layerId: Id | null): Finding[] =>
  chapters.flatMap(([where, problems]) => problems.map((problem) => asFinding(problem, layerId, where)));
const under = (group: string, problems: readonly Problem[]): Problem[] =>
  problems.map((problem) => ({ ...problem, id: `${group}/${problem.id}` }));

/** What is wrong with a layer whether it shows something or not. */
function whateverItShows(effect: Effect, id: Id, rigs: StageRigs, missing: Missing): Finding[] {
  const chapters: Chaptered = [
    ['motion', under('surface', surfaceProblems(effect, id, rigs, missing))],
    ['source', under('front', frontProblems(effect, id, rigs))],
    ['life', under('channel', channelProblems(effect, id))],
    ['appearance', under('look', lookProblems(effect, id, missing))],
    ['links', under('link', linkProblems(effect, id))],
    ['births', under('time', timingProblems(effect, id))],
    ['motion', under('motion', motionProblems(effect, id, rigs))],
    ['life', under('idle', idleProblems(effect, id))],
  ];
  return told(chapters, id);
}

/** What is wrong with how a layer is seen. */
function howItShows(effect: Effect, id: Id, rigs: StageRigs, observed: Observed): Finding[] {
  const layer = effect.layers.byId[id]!;
  const refused = refusals(effect, id, layer, observed);
  const chapters: Chaptered = [
    ['life', pops(effect, id, layer).map((found, index) => ({ id: `pop${index}`, ...found }))],
    ['births', refused ? [{ id: 'refused', ...refused }] : []],
    ['births', losses(effect, id, layer, observed)],
    ['births', capProblems(effect, id, refused !== null)],
    ['life', releaseProblems(effect, id)],
    ['life', sizeProblems(effect, id, rigs)],
    ['life', lightProblems(effect, id)],
    ['appearance', trailProblems(effect, id)],
    ['appearance', flickerProblems(effect, id)],
    ['rulers', turnProblems(effect, id)],
  ];
  return told(chapters, id);
}

const RANK: Record<Severity, number> = { wrong: 0, doubtful: 1 };

/** All that is wrong with an effect: first what is wrong as it stands, then what only looks so; each layer by layer, front to back. */
export function findings(effect: Effect, rigs: StageRigs, observed: Observed): Finding[] {
  const missing: Missing = observed.missing ?? new Map();
  const ofEffect: Chaptered = [
    ['whole', under('stage', stageProblems(effect, missing))],
    ['rulers', nameProblems(effect)],
    ['rulers', deadSeconds(effect)],
    ['births', costProblems(effect, observed)],
  ];
  const all = [
    ...told(ofEffect, null),
    ...listed(effect.layers).flatMap(({ id, item }) => {
      const nothing = whyNothing(effect, id, item, rigs);
      return [
        ...whateverItShows(effect, id, rigs, missing),
        ...(nothing
          ? [asFinding({ id: 'nothing', ...nothing }, id, 'births')]
          : howItShows(effect, id, rigs, observed)),
      ];
    }),
  ];
  return all.sort((a, b) => RANK[a.severity] - RANK[b.severity]);
}
