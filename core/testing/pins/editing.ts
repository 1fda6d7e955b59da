import { findings } from '../../checks/index.ts';
import {
  canonicalText,
  dropChannel,
  listed,
  newEffect,
  newThing,
  parseEffect,
  placesIn,
  referenceProblems,
  removeLayer,
  settingsIn,
  structuredCopy,
  usesOf,
  wordsOf,
  type Effect,
} from '../../document/index.ts';
import {
  dropColour,
  dropDial,
  dropMeasure,
  dropSignal,
  mirrorEffect,
  pasteEffect,
  pasteLayers,
  resize,
  withDials,
} from '../../editing/index.ts';
import { assetsOf } from '../../formats/index.ts';
import { Digest } from '../../simulation/world/digest.ts';
import { reachBetween } from '../../simulation/index.ts';
import { counter } from '../counter.ts';
import { RANDOM_BOX, randomRigs } from '../randomEffect.ts';
import { randomReferences } from '../randomReferences.ts';

/** What editing makes of a random effect full of references, a hash for each kind of act. */
export type EditingPin = Readonly<Record<string, string>>;

/** How many effects are pinned, by the seeds from 0 on. */
export const PINNED_EDITINGS = 60;

const rigs = randomRigs();

function hashOf(value: unknown): string {
  const digest = new Digest();
  const text = canonicalText(value);
  for (let n = 0; n < text.length; n++) digest.word(text.charCodeAt(n));
  return digest.text;
}
const sorted = (words: Iterable<string>) => [...words].sort();

/** An effect in words, without the ids that putting in may have given: those come in whatever order things are put in. */
const saidOf = (effect: Effect) =>
  sorted(wordsOf(effect, 'all').map(({ heading, name, value }) => `${heading}|${name}|${value}`));

const TABLES = ['palette', 'measures', 'dials'] as const;
const after = (effect: Effect, act: (draft: Effect) => void): Effect => {
  const draft = structuredCopy(effect);
  act(draft);
  return draft;
};

const uses = (effect: Effect) =>
  TABLES.map((table) => effect[table].order.map((id) => [table, id, sorted(usesOf(effect, table, id))]));

/** What is said to be wrong once each item is gone, though what referred to it stayed. */
const missed = (effect: Effect) =>
  ([...TABLES, 'signals', 'channels', 'looks', 'fronts', 'groups', 'layers'] as const).flatMap((table) =>
    effect[table].order.map((id) => {
      const gone = after(effect, (draft) => {
        const items = draft[table];
        items.order = items.order.filter((other) => other !== id);
        delete (items.byId as Record<string, unknown>)[id];
      });
      return [table, id, sorted(referenceProblems(gone).map(({ sentence, code }) => `${sentence}|${code}`))];
    }),
  );

const removed = (effect: Effect) => [
  ...effect.layers.order.map((id) => after(effect, (draft) => removeLayer(draft, id))),
  ...effect.measures.order.map((id) => after(effect, (draft) => dropMeasure(draft, id))),
  ...effect.palette.order.map((id) => after(effect, (draft) => dropColour(draft, id))),
  ...effect.dials.order.map((id) => after(effect, (draft) => dropDial(draft, id))),
  ...effect.signals.order.map((id) => after(effect, (draft) => dropSignal(draft, id))),
  ...effect.layers.order.flatMap((layer) =>
    effect.channels.order.map((id) => after(effect, (draft) => dropChannel(draft, layer, id))),
  ),
];

/** Layers and whole effects put into an empty effect, into another and into their own. */
const pasted = (effect: Effect, seed: number) => {
  const bare = newEffect('Bare', 1);
  const staged = after(bare, (draft) => {
    draft.stage.things = { order: ['box'], byId: { box: newThing('Tube', RANDOM_BOX) } };
  });
  return [bare, staged, randomReferences(seed + 1), effect].flatMap((into) =>
    [effect.layers.order.slice(0, 1), effect.layers.order.slice(1), effect.layers.order].flatMap((layers) => {
      const draft = structuredCopy(into);
      const own = pasteLayers(draft, { layers, effect }, 0, counter());
      const whole = structuredCopy(into);
      const all = pasteEffect(whole, effect, 0, counter());
      return [own, all].map(({ brought, lost }, n) => [
        saidOf(parseEffect(n === 0 ? draft : whole)),
        sorted(brought),
        sorted(lost),
      ]);
    }),
  );
};

/** How far every difference between two effects reaches, item by item. */
const reached = (effect: Effect, seed: number) => {
  const other = randomReferences(seed + 1);
  return (Object.keys(effect) as (keyof Effect)[]).flatMap((field) => {
    const whole = { ...effect, [field]: other[field] } as Effect;
    const one = effect[field] as { order?: string[]; byId?: Record<string, object> };
    const two = other[field] as typeof one;
    const parts = (one.order ?? []).flatMap((id) => {
      const [was, is] = [one.byId![id]!, two.byId![id]];
      if (!is) return [];
      return (Object.keys(was) as (keyof typeof was)[]).map((part) => ({
        ...effect,
        [field]: { order: one.order, byId: { ...one.byId, [id]: { ...was, [part]: is[part] } } },
      }));
    });
    return [whole, ...(parts as Effect[])].map((edited) => {
      const { kind, layers } = reachBetween(effect, edited);
      return [field, kind, layers === 'all' ? layers : sorted(layers)];
    });
  });
};

export function editingPinOf(seed: number): EditingPin {
  const effect = parseEffect(randomReferences(seed));
  const stage = new Map(
    listed(effect.stage.things).flatMap(({ id, item }) => {
      const rig = rigs.get(item.asset);
      return rig ? [[id, rig] as const] : [];
    }),
  );
  return {
    walked: hashOf([
      settingsIn(effect).map(({ layer, declaration, setting }) => [layer, declaration.name, setting]),
      placesIn(effect).map(canonicalText).sort(),
    ]),
    words: hashOf(wordsOf(effect, 'all').map(({ heading, name, value }) => [heading, name, value])),
    uses: hashOf(uses(effect)),
    missed: hashOf(missed(effect)),
    removed: hashOf(removed(effect)),
    pasted: hashOf(pasted(effect, seed)),
    mirrored: hashOf(after(effect, (draft) => mirrorEffect(draft, stage))),
    resized: hashOf(after(effect, (draft) => void resize(draft, { size: 1.5, tempo: 2 }))),
    reached: hashOf(reached(effect, seed)),
    put: hashOf([withDials(effect), sorted(assetsOf(effect))]),
    found: hashOf(
      sorted(findings(effect, stage, { refused: {}, isBudgetFull: false }).map(({ sentence }) => sentence)),
    ),
  };
}
