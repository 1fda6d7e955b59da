import type { Effect, Layer } from '../schema/index.ts';
import {
  hasItem,
  listed,
  settingSchema,
  type Collection,
  type Id,
  type RefRule,
  type RefTable,
} from '../../settings/index.ts';
import { visitRefs, type FoundRef } from './foundRefs.ts';
import { stepTable } from '../look.ts';
import { PART_OF_TABLE, PARTS } from './parts.ts';

export interface ReferenceProblem {
  readonly path: string;
  readonly sentence: string;
  readonly code: 'document.reference' | 'document.circle';
}

/** The items of a table that is referred to. */
export const tableOf = (
  effect: Effect,
  table: RefTable,
): Collection<{ readonly kind?: string; readonly name?: string }> =>
  table === 'things' ? effect.stage.things : effect[table];

/** What an item of a table is called where it is missing, if that is not the word for such a part. */
const NOUNS: Readonly<Partial<Record<RefTable, string>>> = { palette: 'palette colour', fronts: 'front' };

/** Whether an item serves a reference to it. */
export function serves(effect: Effect, { table, kinds }: RefRule, id: Id): boolean {
  const items = tableOf(effect, table);
  return hasItem(items, id) && (kinds === undefined || kinds.includes(items.byId[id]!.kind!));
}

function sentenceOf({ rule, id, holder }: FoundRef): string {
  const { table, kinds, isOther, purpose } = rule;
  const noun = kinds ? kinds.join(' or ') : (NOUNS[table] ?? PARTS[PART_OF_TABLE[table]].word);
  const why = typeof purpose === 'function' ? purpose(holder as never) : purpose;
  return `no ${isOther ? 'other ' : ''}${noun} "${id}"${why ? ` ${why}` : ''}${kinds ? ` among the ${table}` : ''}`;
}

/** A path of a document as problems name it: without what every collection has. */
const pathOf = (keys: readonly (string | number)[]) => keys.filter((key) => key !== 'byId').join('.');

/** What is wrong with the numbers that a layer changes of the look it uses. */
function changeProblems(effect: Effect, layerId: Id, { look }: Pick<Layer, 'look'>): ReferenceProblem[] {
  const named = look.kind === 'named' ? effect.looks.byId[look.look] : undefined;
  if (look.kind !== 'named' || !named) return [];
  return Object.entries(look.changes).flatMap(([id, changes]): ReferenceProblem[] => {
    const path = `layers.${layerId}.look.changes.${id}`;
    const code = 'document.reference';
    const step = named.steps.byId[id];
    if (!step) return [{ path, sentence: `the look "${named.name}" has no step "${id}"`, code }];
    const table = stepTable(step.kind);
    return Object.entries(changes).flatMap(([name, value]): ReferenceProblem[] => {
      const declaration = Object.hasOwn(table, name) ? table[name] : undefined;
      const at = { path: `${path}.${name}`, code } as const;
      if (declaration?.value !== 'number')
        return [{ ...at, sentence: `a step of kind ${step.kind} has no number "${name}"` }];
      const checked = settingSchema(declaration).safeParse(value);
      return checked.success ? [] : [{ ...at, sentence: checked.error.issues[0]!.message }];
    });
  });
}

/** Finds ids that lead nowhere (a thing gone from the stage is a finding, not a fault: it may come back) and circles of parents, derived colours or followed layers. */
export function referenceProblems(effect: Effect): ReferenceProblem[] {
  const problems: ReferenceProblem[] = [];
  const say = (path: string, sentence: string, code: ReferenceProblem['code'] = 'document.reference') =>
    problems.push({ path, sentence, code });

  visitRefs(effect, (rule, id, found) => {
    if (rule.table === 'things') return;
    const isItself = rule.isOther === true && found().itemId === id;
    if (!serves(effect, rule, id) || isItself) say(pathOf(found().path), sentenceOf(found()));
  });
  for (const { id, item } of listed(effect.layers)) problems.push(...changeProblems(effect, id, item));

  const circle = (path: string, start: string, next: (id: string) => string | null) => {
    const seen = new Set<string>();
    for (let id: string | null = start; id !== null; id = next(id)) {
      if (seen.has(id)) {
        say(`${path}.${start}`, 'leads back to itself', 'document.circle');
        return;
      }
      seen.add(id);
    }
  };
  for (const id of effect.groups.order) {
    circle('groups', id, (at) => effect.groups.byId[at]?.parent ?? null);
    const { linked } = effect.groups.byId[id]!;
    for (const { path, sentence, code } of linked ? referenceProblems(linked.effect) : [])
      say(`groups.${id}.linked.effect.${path}`, sentence, code);
  }
  for (const id of effect.palette.order)
    circle('palette', id, (at) => {
      const next = effect.palette.byId[at]?.colour;
      return next?.kind === 'derived' ? next.from : null;
    });
  for (const id of effect.layers.order)
    circle('layers', id, (at) => {
      const population = effect.layers.byId[at]?.population;
      return population?.kind === 'follows' ? population.layer : null;
    });
  for (const id of effect.layers.order) {
    // Each moment of a layer may hang on another layer's; none on itself, by however many steps.
    const hangsOn = (at: string): string[] => {
      const births = effect.layers.byId[at]?.births;
      return [births?.from, births?.until].flatMap((value) =>
        value?.after.kind === 'layer' ? [value.after.layer] : [],
      );
    };
    const seen = new Set<string>();
    const reach = (at: string): boolean =>
      hangsOn(at).some((next) => next === id || (!seen.has(next) && (seen.add(next), reach(next))));
    if (reach(id)) say(`layers.${id}.births`, 'hangs on itself', 'document.circle');
  }
  return problems;
}
