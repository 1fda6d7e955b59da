import type { z } from 'zod';
import {
  canonicalText,
  type Collection,
  DocumentError,
  type Effect,
  emptyCollection,
  forcesOn,
  formatAddress,
  type FoundRef,
  type Id,
  layerSchema,
  layersMeeting,
  listed,
  newId,
  parseEffect,
  parseSettingAddress,
  PART_OF_TABLE,
  PARTS,
  type Random32,
  refsIn,
  type RefTable,
  serves,
  type SettingAddress,
  structuredCopy,
  surfaceSchema,
  withItem,
} from '../document/index.ts';
import { CHAPTERS, type ChapterName } from './chapterNames.ts';
import { moveLayer } from './regroup.ts';

/** What of a copied layer is meant, where it is not the layer as a whole. */
export type ClippedPart =
  | { readonly kind: 'setting'; readonly address: SettingAddress }
  | { readonly kind: 'force'; readonly id: Id }
  | { readonly kind: 'chapter'; readonly chapter: ChapterName };

/** Layers that were copied, with the effect they come from: what they refer to is looked up in it. */
export interface Clip {
  readonly layers: readonly Id[];
  readonly effect: Effect;
  readonly part?: ClippedPart | undefined;
}

/** What came of putting layers into an effect. */
export interface Pasted {
  /** The new layers, in their order. */
  readonly layers: readonly Id[];
  /** What was brought along, for the effect had none of its name. */
  readonly brought: readonly string[];
  /** What had no match, and so is not referred to any more. */
  readonly lost: readonly string[];
}

const MARK = 'jinx layers';

/** Layers as text, to be put into this or another effect, of this or another project. */
export const clipText = ({ layers, effect, part }: Clip): string =>
  canonicalText({
    kind: MARK,
    layers,
    effect,
    part: part ? (part.kind === 'setting' ? { kind: 'setting', address: formatAddress(part.address) } : part) : null,
  });

/** Reads which part of a copied layer is meant; undefined where the whole is. */
function readPart(value: unknown): ClippedPart | undefined {
  const { kind, address, id, chapter } = (value ?? {}) as Record<string, unknown>;
  if (kind === 'force' && typeof id === 'string') return { kind, id };
  const named = CHAPTERS.find((name) => name === chapter);
  if (kind === 'chapter' && named) return { kind, chapter: named };
  const parsed = kind === 'setting' && typeof address === 'string' ? parseSettingAddress(address) : null;
  return parsed ? { kind: 'setting', address: parsed } : undefined;
}

/** Reads what `clipText` wrote. Null when the text is something else. @throws DocumentError when it is such a text, but not whole. */
export function readClip(text: string): Clip | null {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return null;
  }
  if (typeof value !== 'object' || value === null || (value as { kind?: unknown }).kind !== MARK) return null;
  const { layers, effect: document, part } = value as { layers?: unknown; effect?: unknown; part?: unknown };
  const effect = parseEffect(document);
  if (!Array.isArray(layers) || !layers.every((id) => typeof id === 'string' && id in effect.layers.byId))
    throw new DocumentError('the copied layers are not in what was copied: copy them again', 'layers');
  return { layers: layers as Id[], effect, part: readPart(part) };
}

/** Tables whose items are brought along where the effect has none of the same name. */
type Brought = Exclude<RefTable, 'layers' | 'groups' | 'things'>;

/** Items that are the same only if they are so throughout; else one comes along beside the other. */
const SAME_THROUGHOUT: readonly RefTable[] = ['looks', 'fronts'];

/** Puts copied layers into an effect, one after another. */
class Paster {
  readonly brought = new Set<string>();
  readonly lost = new Set<string>();
  readonly #draft: Effect;
  readonly #clip: Clip;
  readonly #random: Random32;
  /** New ids of what was copied or brought along, by "table/old id". */
  readonly #known = new Map<string, Id>();
  /** Whether what hangs on a thing that is not on this stage stands by itself instead. */
  readonly #standsFree: boolean;

  constructor(draft: Effect, clip: Clip, ids: ReadonlyMap<Id, Id>, random: Random32, standsFree: boolean) {
    [this.#draft, this.#clip, this.#random, this.#standsFree] = [draft, clip, random, standsFree];
    for (const [from, to] of ids) this.#known.set(`layers/${from}`, to);
  }

  /** Leads what a part refers to, to what is here; what is not here is brought along, or done without. */
  put(part: object, schema: z.ZodType): void {
    const missed: FoundRef[] = [];
    for (const found of refsIn(part, { schema })) {
      const to = this.#match(found);
      if (to !== null) found.lead(to);
      if (to === null || this.#isMissed(found, to)) missed.push(found);
    }
    // What stands in for them may be made of what was led elsewhere.
    for (const found of missed) {
      const { without } = found.rule;
      found.letGo(without && (() => structuredCopy(without(found.holder as never, found.owner as never))));
    }
  }

  /** Whether something hangs on a thing that is not on this stage, and may stand by itself. */
  #isMissed({ rule }: FoundRef, to: Id): boolean {
    return (
      this.#standsFree && rule.table === 'things' && rule.without !== undefined && !this.#draft.stage.things.byId[to]
    );
  }

  #match(found: FoundRef): Id | null {
    const { table } = found.rule;
    const known = this.#known.get(`${table}/${found.id}`);
    if (known !== undefined && serves(this.#draft, found.rule, known)) return known;
    switch (table) {
      case 'layers':
        return known ?? this.#layer(found);
      case 'things':
        return known ?? this.#thing(found.id);
      // Layers come out of their groups before they are copied.
      case 'groups':
        return null;
      default:
        return this.#entry(table, found);
    }
  }

  /** The item of a table that has the same name here; brought along where there is none. */
  #entry(table: Brought, { id, rule }: FoundRef): Id | null {
    const from = this.#clip.effect[table] as Collection<NamedItem>;
    const here = this.#draft[table] as Collection<NamedItem>;
    const item = from.byId[id]!;
    const isSame = (other: NamedItem) =>
      SAME_THROUGHOUT.includes(table) ? canonicalText(other) === canonicalText(item) : other.name === item.name;
    const namesakes = listed(here).filter((other) => isSame(other.item));
    const found = namesakes.find((other) => serves(this.#draft, rule, other.id));
    const { word, schema } = PARTS[PART_OF_TABLE[table]];
    if (!found && namesakes.length > 0 && rule.whenGone === 'null') {
      const other = namesakes[0]!.item;
      this.lost.add(`the ${item.kind ?? word} ${item.name}, for a ${word} of that name here is a ${other.kind}`);
      return null;
    }
    const to = found?.id ?? (here.byId[id] ? newId(this.#random) : id);
    this.#known.set(`${table}/${id}`, to);
    if (found) return to;
    this.brought.add(`the ${word} ${item.name}`);
    const made = structuredCopy(item);
    (this.#draft as unknown as Record<Brought, Collection<unknown>>)[table] = withItem(here, to, made);
    // It may itself refer to something.
    this.put(made, schema);
    return to;
  }

  /** The thing on this stage of the same name, or the same figure; a gone one is a finding of the effect. */
  #thing(id: Id): Id {
    const item = this.#clip.effect.stage.things.byId[id];
    const here = listed(this.#draft.stage.things);
    const found =
      here.find((other) => other.item.name === item?.name && other.item.asset === item?.asset) ??
      here.find((other) => other.item.asset === item?.asset) ??
      here.find((other) => other.item.name === item?.name);
    const to = found?.id ?? (this.#draft.stage.things.byId[id] ? newId(this.#random) : id);
    if (!found) this.lost.add(`the thing ${item?.name ?? id}, which is not on this stage`);
    this.#known.set(`things/${id}`, to);
    return to;
  }

  /** A layer that is not copied along, but here under the same id and name; null where there is none. */
  #layer({ id, rule }: FoundRef): Id | null {
    const name = this.#clip.effect.layers.byId[id]?.name;
    if (this.#draft.layers.byId[id]?.name === name) return id;
    this.lost.add(`the layer ${name ?? id}, ${rule.lost}`);
    return null;
  }
}

interface NamedItem {
  readonly name: string;
  readonly kind?: string;
}

/**
 * Puts copied layers into a draft, at a place front to back. Palette, measures, dials and channels are matched by name,
 * things by figure or name; what has no match is brought along where it can be, and told where it cannot. Layers come out of
 * their groups, and look as they did.
 */
export function pasteLayers(draft: Effect, clip: Clip, at: number, random: Random32): Pasted {
  return paste(draft, { layers: clip.layers, effect: structuredCopy(clip.effect) }, at, random, false).pasted;
}

/**
 * Puts a whole effect into a draft, as layers: its forces with those they act on, and what they meet. What hangs on a thing
 * that is not on this stage stands where its effect does.
 */
export function pasteEffect(draft: Effect, effect: Effect, at: number, random: Random32): PastedEffect {
  const from = structuredCopy(effect);
  for (const { id, item } of listed(from.layers))
    for (const [n, force] of forcesOn(from, id).entries())
      if (force.isShared) item.forces = withItem(item.forces, `shared${n}`, structuredCopy(force.item));
  from.forces = emptyCollection();
  const { paster, pasted } = paste(draft, { layers: from.layers.order, effect: from }, at, random, true);
  const surfaces = listed(from.surfaces).map(({ id, item }): Id => {
    item.layers = layersMeeting(from, item);
    paster.put(item, surfaceSchema);
    const to = draft.surfaces.byId[id] ? newId(random) : id;
    draft.surfaces = withItem(draft.surfaces, to, item);
    return to;
  });
  return { ...pasted, surfaces };
}

/** What came of putting a whole effect into another. */
export interface PastedEffect extends Pasted {
  readonly surfaces: readonly Id[];
}

function paste(draft: Effect, from: Clip, at: number, random: Random32, standsFree: boolean) {
  const taken = new Set(Object.keys(draft.layers.byId));
  const ids = new Map(from.layers.map((id) => [id, taken.has(id) ? newId(random) : id]));
  const paster = new Paster(draft, from, ids, random, standsFree);
  const salts = new Set(listed(draft.layers).map(({ item }) => item.salt));
  from.layers.forEach((id, n) => {
    moveLayer(from.effect, id, null);
    const layer = from.effect.layers.byId[id]!;
    paster.put(layer, layerSchema);
    // Its particles keep their draws where nothing here has them already.
    if (salts.has(layer.salt)) layer.salt = random() >>> 0;
    draft.layers = withItem(draft.layers, ids.get(id)!, layer, at + n);
  });
  const pasted: Pasted = { layers: [...ids.values()], brought: [...paster.brought], lost: [...paster.lost] };
  return { paster, pasted };
}
