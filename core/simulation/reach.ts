import {
  areShapedBy,
  diff,
  forcesOn,
  LAYER_SETTINGS,
  layersMeeting,
  RIBBON_SETTINGS,
  listed,
  takersOf,
  usesOf,
  waitingFor,
  type Acts,
  type Change,
  type Effect,
  type Id,
  type Passed,
} from '../document/index.ts';
import { keepDistance } from './distance.ts';

/** What a change reaches: nothing computed, only how particles are dressed, or the state of some layers. */
export interface Reach {
  readonly kind: 'nothing' | 'dress' | 'state';
  /** Layers whose state it reaches, those that hang on them included; "all" where no layer is left alone. */
  readonly layers: ReadonlySet<Id> | 'all';
}

/** Fields of a layer that decide only what is seen or how it is worked on. */
const SHOWN_ONLY = new Set(['name', 'hidden', 'solo', 'locked', 'inside']);

/** What of the stage is only seen. */
const SEEN_ONLY = new Set(['surround', 'lens', 'air']);

/** Settings that dress particles, and which a link may have read when it passed them on. */
const PASSED: Readonly<Record<string, 'colour' | 'size'>> = { 'life.colour': 'colour', 'life.size': 'size' };

type Reached = 'nothing' | 'dress' | 'all' | readonly Id[];

/** Layers that take or pass on a colour or a size: what is kept at birth is state. */
function passing(effect: Effect, what: Passed, id: Id): Id[] {
  const found = takersOf(effect, what, id);
  if (takersOf(effect, what).has(id)) found.add(id);
  const layer = effect.layers.byId[id];
  if (what === 'colour' && layer?.settings['life.colour'].base.kind === 'taken') found.add(id);
  return [...found];
}

function ofSetting(before: Effect, after: Effect, id: Id, name: string): Reached {
  const acts: Acts = LAYER_SETTINGS[name as keyof typeof LAYER_SETTINGS]?.acts ?? 'step';
  if (acts !== 'dress') return [id];
  const what = PASSED[name];
  const reached = what ? [...passing(before, what, id), ...passing(after, what, id)] : [];
  return reached.length > 0 ? reached : 'dress';
}

/** What is for some layers by its own list: an empty one is for all. */
function listedFor(path: readonly string[], before: Effect, after: Effect): Reached {
  const [first, , id] = path as [string, string, string | undefined];
  if (id === undefined) return 'nothing';
  const reached: Id[] = [];
  for (const effect of [before, after]) {
    const item =
      first === 'forces' ? effect.forces.byId[id] : first === 'surfaces' ? effect.surfaces.byId[id] : undefined;
    if (item?.layers.length === 0) return 'all';
    reached.push(...(item?.layers ?? []));
  }
  return reached;
}

const withFront = (effect: Effect, front: string | undefined): Id[] =>
  listed(effect.layers).flatMap(({ id, item }) => (item.front === front ? [id] : []));

/** A front that frees nothing may still cut a body: then it is only seen. */
function ofFront(before: Effect, after: Effect, id: Id): Reached {
  const freed = [...withFront(before, id), ...withFront(after, id)];
  return freed.length > 0 ? freed : 'dress';
}

/** Trails are laid step by step; what else is drawn is a function of what is there. A beam's end is an event. */
function ofDrawn(before: Effect, after: Effect, path: readonly string[]): Reached {
  const [, , id, , part, name] = path as [string, string, Id, string, string?, string?];
  const kinds = [before, after].map((effect) => effect.layers.byId[id]?.drawn.kind ?? 'sprite');
  const [kind] = kinds;
  const table = (RIBBON_SETTINGS as Record<string, Record<string, { acts: Acts }>>)[kind!];
  if (kinds.every((each) => each === kind) && table && part === 'settings' && name)
    return table[name]?.acts === 'dress' ? 'dress' : [id];
  return kinds.some((each) => each === 'trail' || each === 'beam') ? [id] : 'dress';
}

/** Whether what a layer's particles carry reaches what is computed: a force or a ribbon reads it, or a link passes it on. */
function areChannelsFelt(effect: Effect, id: Id): boolean {
  const layer = effect.layers.byId[id];
  if (!layer) return false;
  const isShaped = (settings: object) => areShapedBy(settings, ['channel']);
  return (
    forcesOn(effect, id).some(({ item }) => isShaped(item.settings)) ||
    (layer.drawn.kind !== 'sprite' && isShaped(layer.drawn.settings)) ||
    passing(effect, 'channels', id).length > 0
  );
}

/** Layers that meet the mesh which a layer is drawn as. */
function meeting(effect: Effect, id: Id): Id[] {
  return listed(effect.surfaces).flatMap(({ item }) =>
    item.kind === 'layer' && item.layer === id ? layersMeeting(effect, item) : [],
  );
}

function ofLayer(before: Effect, after: Effect, path: readonly string[]): Reached {
  const [, , id, part] = path;
  if (id === undefined) return 'dress';
  if (part === undefined) return [id];
  if (SHOWN_ONLY.has(part)) return 'nothing';
  const own = ofLayerItself(before, after, path);
  const met = [...meeting(before, id), ...meeting(after, id)];
  if (met.length === 0 || own === 'all') return own;
  return typeof own === 'string' ? met : [...own, ...met];
}

function ofLayerItself(before: Effect, after: Effect, path: readonly string[]): Reached {
  const [, , id, part, name] = path as [string, string, Id, string, string?];
  // Others may begin with it or end with it.
  if (part === 'births') return 'all';
  if (part === 'drawn') return ofDrawn(before, after, path);
  if (part === 'look') return 'dress';
  if (part === 'channels') return [before, after].some((effect) => areChannelsFelt(effect, id)) ? [id] : 'dress';
  if (part === 'settings' && name) return ofSetting(before, after, id, name);
  return [id];
}

function reachOf({ path }: Change, before: Effect, after: Effect): Reached {
  const [first, second, id] = path;
  switch (first) {
    case 'name':
    case 'schema':
      return 'nothing';
    case 'palette':
      return hasPassedColours(before, after) ? 'all' : 'dress';
    case 'stage':
      return SEEN_ONLY.has(second!) ? 'nothing' : 'all';
    case 'looks':
      return 'dress';
    case 'layers':
      return ofLayer(before, after, path);
    case 'dials':
      return id === undefined || [before, after].every((effect) => usesOf(effect, 'dials', id).length === 0)
        ? 'nothing'
        : 'all';
    case 'signals':
      return path[3] === 'name' ? 'nothing' : waitingForAny(before, after, id);
    case 'channels':
      return path[3] === 'name' ? 'nothing' : 'dress';
    case 'forces':
    case 'surfaces':
      return listedFor(path, before, after);
    case 'fronts':
      return id === undefined ? 'nothing' : ofFront(before, after, id);
    default:
      return 'all';
  }
}

/** Layers whose births wait for a signal; a new or a gone one has none. */
const waitingForAny = (before: Effect, after: Effect, id: string | undefined): Reached =>
  id === undefined ? 'nothing' : [before, after].flatMap((effect) => waitingFor(effect, id));

const hasPassedColours = (...effects: Effect[]): boolean =>
  effects.some((effect) => effect.layers.order.some((id) => passing(effect, 'colour', id).length > 0));

/** Layers that hang together: by links, or since one is born on the particles of the other. */
export function kinsOf(effect: Pick<Effect, 'layers'>): Id[][] {
  const kinOf = new Map<Id, Id[]>(effect.layers.order.map((id) => [id, [id]]));
  const join = (a: Id, b: Id) => {
    const [one, other] = [kinOf.get(a), kinOf.get(b)];
    if (!one || !other || one === other) return;
    one.push(...other);
    for (const id of other) kinOf.set(id, one);
  };
  for (const { id, item } of listed(effect.layers)) {
    for (const { item: link } of listed(item.links)) join(id, link.layer);
    if (item.source.kind === 'particles') join(id, item.source.layer);
    // What it follows lays its trails.
    if (item.population.kind === 'follows') join(id, item.population.layer);
  }
  return [...new Set(kinOf.values())];
}

/** How far the difference between two documents reaches. */
export function reachBetween(before: Effect, after: Effect): Reach {
  let isDress = false;
  const layers = new Set<Id>();
  for (const change of diff(before, after)) {
    const reached = reachOf(change, before, after);
    if (reached === 'all') return { kind: 'state', layers: 'all' };
    if (reached === 'dress') isDress = true;
    else if (reached !== 'nothing') reached.forEach((id) => layers.add(id));
  }
  // Metres travelled are kept only where something is shaped by them.
  const [kept, keeps] = [keepDistance(before), keepDistance(after)];
  for (const id of after.layers.order) if (before.layers.byId[id] && kept.has(id) !== keeps.has(id)) layers.add(id);
  if (layers.size === 0) return { kind: isDress ? 'dress' : 'nothing', layers };
  // Whoever hangs together with one that is reached is computed with it.
  for (const effect of [before, after])
    for (const kin of kinsOf(effect)) if (kin.some((id) => layers.has(id))) kin.forEach((id) => layers.add(id));
  return { kind: 'state', layers };
}
