import {
  canonicalText,
  collectionOf,
  DocumentError,
  emptyCollection,
  forcesOn,
  layersMeeting,
  listed,
  newId,
  parseEffect,
  placesOfLayer,
  settingsOfLayer,
  stepSettings,
  structuredCopy,
  withItem,
  withoutItem,
  type Collection,
  type Effect,
  type Id,
  type Layer,
  type Moment,
  type Place,
  type Random32,
  type Setting,
  type Step,
} from '../document/index.ts';
import { moveLayer } from './regroup.ts';
import { recoloured, reread } from './rewrite.ts';

/** Layers that were copied, with the effect they come from: what they refer to is looked up in it. */
export interface Clip {
  readonly layers: readonly Id[];
  readonly effect: Effect;
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
export const clipText = ({ layers, effect }: Clip): string => canonicalText({ kind: MARK, layers, effect });

/** Reads what `clipText` wrote. Null when the text is something else. @throws DocumentError when it is such a text, but not whole. */
export function readClip(text: string): Clip | null {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return null;
  }
  if (typeof value !== 'object' || value === null || (value as { kind?: unknown }).kind !== MARK) return null;
  const { layers, effect: document } = value as { layers?: unknown; effect?: unknown };
  const effect = parseEffect(document);
  if (!Array.isArray(layers) || !layers.every((id) => typeof id === 'string' && id in effect.layers.byId))
    throw new DocumentError('the copied layers are not in what was copied: copy them again', 'layers');
  return { layers: layers as Id[], effect };
}

type Table = 'palette' | 'measures' | 'dials' | 'signals' | 'channels' | 'looks' | 'fronts';
const WORDS: Record<Table, string> = {
  palette: 'the colour',
  measures: 'the measure',
  dials: 'the dial',
  signals: 'the signal',
  channels: 'the channel',
  looks: 'the look',
  fronts: 'the release front',
};

/** Puts copied layers into an effect, one after another. */
class Paster {
  readonly brought = new Set<string>();
  readonly lost = new Set<string>();
  readonly #draft: Effect;
  readonly #clip: Clip;
  readonly #random: Random32;
  /** New ids of the copied layers, by their old ones. */
  readonly #ids: ReadonlyMap<Id, Id>;
  readonly #known = new Map<string, Id>();

  /** Whether what hangs on a thing that is not on this stage stands by itself instead. */
  readonly #standsFree: boolean;

  constructor(draft: Effect, clip: Clip, ids: ReadonlyMap<Id, Id>, random: Random32, standsFree: boolean) {
    [this.#draft, this.#clip, this.#ids, this.#random] = [draft, clip, ids, random];
    this.#standsFree = standsFree;
  }

  /** The entry of a table that has the same name here; brought along where there is none. */
  #entry(table: Table, id: Id): Id {
    const key = `${table}/${id}`;
    const known = this.#known.get(key);
    if (known !== undefined) return known;
    const from = this.#clip.effect[table] as Collection<{ name: string }>;
    const here = this.#draft[table] as Collection<{ name: string }>;
    const item = from.byId[id]!;
    // A look or a front is the same only if it is so throughout; else it comes along beside the other.
    const isSame = (other: { name: string }) =>
      table === 'looks' || table === 'fronts'
        ? canonicalText(other) === canonicalText(item)
        : other.name === item.name;
    const found = listed(here).find((other) => isSame(other.item))?.id;
    const to = found ?? (here.byId[id] ? newId(this.#random) : id);
    this.#known.set(key, to);
    if (found !== undefined) return found;
    this.brought.add(`${WORDS[table]} ${item.name}`);
    const made = structuredCopy(item);
    (this.#draft as unknown as Record<Table, Collection<unknown>>)[table] = withItem(here, to, made);
    this.#finish(table, made);
    return to;
  }

  /** What was brought along may itself refer to something. */
  #finish(table: Table, made: { name: string }): void {
    if (table === 'palette') {
      const { colour } = made as Effect['palette']['byId'][string];
      if (colour.kind === 'derived') colour.from = this.#entry('palette', colour.from);
    } else if (table === 'looks') {
      const { steps } = made as Effect['looks']['byId'][string];
      for (const { item } of listed(steps)) for (const one of Object.values(stepSettings(item))) this.setting(one);
      this.#gradients(steps);
    } else if (table === 'fronts') {
      const front = made as Effect['fronts']['byId'][string];
      for (const setting of Object.values(front.settings)) this.setting(setting as Setting);
      this.place(front.place);
    }
  }

  /** The colours of a look's gradients, which are no settings. */
  #gradients(steps: Collection<Step>): void {
    for (const { item } of listed(steps))
      if (item.kind === 'gradient') recoloured(item, (id) => this.#entry('palette', id));
  }

  setting(setting: Setting): void {
    reread(setting, (table, id) => this.#entry(table, id));
  }

  /** The thing on this stage of the same name, or the same figure; a gone one is a finding of the effect. */
  thing(id: Id): Id {
    const known = this.#known.get(`things/${id}`);
    if (known !== undefined) return known;
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

  place(place: Place): void {
    if (place.kind === 'dial') place.dial = this.#given(place.dial);
    if (!('thing' in place)) return;
    const thing = this.thing(place.thing);
    if (!this.#standsFree || this.#draft.stage.things.byId[thing]) {
      place.thing = thing;
      return;
    }
    const { offset, turn, keys } = place;
    for (const key of Object.keys(place)) delete (place as Partial<Record<string, unknown>>)[key];
    Object.assign(place, { kind: 'effect', offset, turn, keys });
  }

  /** A layer that is referred to: copied along, or here under the same id and name. Null where there is none. */
  #layer(id: Id, why: string): Id | null {
    const copied = this.#ids.get(id);
    if (copied !== undefined) return copied;
    const name = this.#clip.effect.layers.byId[id]?.name;
    if (this.#draft.layers.byId[id]?.name === name) return id;
    this.lost.add(`the layer ${name ?? id}, ${why}`);
    return null;
  }

  /** Lets a moment hang on what is here; false where it hangs on a layer that is not. */
  #moment(moment: Moment): boolean {
    if (moment.measure) moment.measure = this.#entry('measures', moment.measure);
    if (moment.after.kind !== 'layer') return true;
    const layer = this.#layer(moment.after.layer, 'on which births hung');
    moment.after = layer === null ? { kind: 'border', border: 'start' } : { ...moment.after, layer };
    return layer !== null;
  }

  /** A dial by which something stands; one of its name that gives something else does not serve, and this one comes along beside it. */
  #given(id: Id): Id {
    const { kind, name } = this.#clip.effect.dials.byId[id]!;
    const own = listed(this.#draft.dials).find(({ item }) => item.name === name && item.kind === kind);
    if (own) return own.id;
    const to = this.#draft.dials.byId[id] ? newId(this.#random) : id;
    this.#draft.dials = withItem(this.#draft.dials, to, structuredCopy(this.#clip.effect.dials.byId[id]!));
    this.brought.add(`${WORDS.dials} ${name}`);
    return to;
  }

  /** A switch by which a layer is seen; a dial of its name that is none does not serve. */
  #switch(id: Id): Id | null {
    const to = this.#entry('dials', id);
    if (this.#draft.dials.byId[to]?.kind === 'switch') return to;
    this.lost.add(`the switch ${this.#clip.effect.dials.byId[id]!.name}, for a dial of that name here is a number`);
    return null;
  }

  /** Writes a layer's references anew, so that they lead to what is here. */
  put(layer: Layer, id: Id): void {
    const { source, population, drawn } = layer;
    const own = { ...this.#clip.effect, layers: { order: [id], byId: { [id]: layer } } };
    for (const { setting } of settingsOfLayer(own, id)) this.setting(setting);
    for (const place of placesOfLayer(own, id)) this.place(place);
    if ('thing' in source) source.thing = this.thing(source.thing);
    if (source.kind === 'particles') {
      const bearer = this.#layer(source.layer, 'on whose particles they were born');
      layer.source =
        bearer === null ? { kind: 'point', place: structuredCopy(layer.aim) } : { ...source, layer: bearer };
    }
    if (population.kind === 'follows') {
      const followed = this.#layer(population.layer, 'which was followed');
      layer.population = followed === null ? { kind: 'own' } : { kind: 'follows', layer: followed };
    }
    if (layer.inside !== null) layer.inside = this.#layer(layer.inside, 'inside of which it was drawn');
    if (layer.seenBy !== null) layer.seenBy = this.#switch(layer.seenBy);
    if (layer.front !== null) layer.front = this.#entry('fronts', layer.front);
    for (const link of listed(layer.links)) {
      const to = this.#layer(link.item.layer, 'which was set off');
      if (to === null) layer.links = withoutItem(layer.links, link.id);
      else link.item.layer = to;
    }
    for (const { item } of listed(layer.bursts)) if (item.signal) item.signal = this.#entry('signals', item.signal);
    this.#moment(layer.births.from);
    if (layer.births.until && !this.#moment(layer.births.until)) layer.births.until = null;
    layer.channels = collectionOf(
      listed(layer.channels).map(({ id: channel, item }) => [this.#entry('channels', channel), item] as const),
    );
    if (layer.look.kind === 'named') layer.look.look = this.#entry('looks', layer.look.look);
    else this.#gradients(layer.look.steps);
    if (drawn.kind === 'mesh') for (const part of drawn.parts) part.look = this.#entry('looks', part.look);
    if (drawn.kind === 'body') {
      drawn.thing = this.thing(drawn.thing);
      if (drawn.front !== null) drawn.front = this.#entry('fronts', drawn.front);
    }
  }
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
  const { ids, paster, pasted } = paste(draft, { layers: from.layers.order, effect: from }, at, random, true);
  const surfaces = listed(from.surfaces).map(({ id, item }): Id => {
    item.layers = layersMeeting(from, item).flatMap((layer) => ids.get(layer) ?? []);
    for (const setting of Object.values(item.settings)) paster.setting(setting as Setting);
    if ('place' in item) paster.place(item.place);
    if (item.kind === 'thing') item.thing = paster.thing(item.thing);
    if (item.kind === 'layer') item.layer = ids.get(item.layer) ?? item.layer;
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
    paster.put(layer, id);
    // Its particles keep their draws where nothing here has them already.
    if (salts.has(layer.salt)) layer.salt = random() >>> 0;
    draft.layers = withItem(draft.layers, ids.get(id)!, layer, at + n);
  });
  const pasted: Pasted = { layers: [...ids.values()], brought: [...paster.brought], lost: [...paster.lost] };
  return { ids, paster, pasted };
}
