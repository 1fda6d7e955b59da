import {
  areShapedBy,
  diff,
  forcesOn,
  LAYER_SETTINGS,
  layersMeeting,
  RIBBON_SETTINGS,
  listed,
  takersOf,
  refsTo,
  surfacesFor,
  PARTS,
  tableByName,
  waitingFor,
  type Change,
  type Effect,
  type Id,
  type Layer,
  type Passed,
  type Reaches,
  type Ribbon,
} from '../../document/index.ts';
import { keepDistance } from '../compile/distance.ts';

/** What a change reaches: nothing computed, only how particles are dressed, or the state of some layers. */
export interface Reach {
  readonly kind: 'nothing' | 'dress' | 'state';
  /** Layers whose state it reaches, those that hang on them included; "all" where no layer is left alone. */
  readonly layers: ReadonlySet<Id> | 'all';
}

/** Settings that dress particles, and which a link may have read when it passed them on. */
const PASSED: Readonly<Record<string, 'colour' | 'size'>> = { 'life.colour': 'colour', 'life.size': 'size' };

type Reached = 'nothing' | 'dress' | 'all' | readonly Id[];

/** A change at a path, with the documents before and after it. */
interface DocumentChange {
  readonly before: Effect;
  readonly after: Effect;
  readonly path: readonly string[];
}
type LayerChange = DocumentChange & { readonly id: Id };

/** Layers that take or pass on a colour or a size: what is kept at birth is state. */
function passing(effect: Effect, what: Passed, id: Id): Id[] {
  const found = takersOf(effect, what, id);
  if (takersOf(effect, what).has(id)) found.add(id);
  const layer = effect.layers.byId[id];
  if (what === 'colour' && layer?.settings['life.colour'].base.kind === 'taken') found.add(id);
  return [...found];
}

function ofSetting({ before, after, id, path }: LayerChange): Reached {
  const name = path[4];
  if (name === undefined || tableByName(LAYER_SETTINGS)[name]?.acts !== 'dress') return [id];
  const what = PASSED[name];
  const reached = what ? [...passing(before, what, id), ...passing(after, what, id)] : [];
  return reached.length > 0 ? reached : 'dress';
}

/** What is for some layers by its own list: an empty one is for all. */
function listedFor({ before, after, path }: DocumentChange): Reached {
  const [table, , id] = path as ['forces' | 'surfaces', string, string | undefined];
  if (id === undefined) return 'nothing';
  const reached: Id[] = [];
  for (const effect of [before, after]) {
    const item = effect[table].byId[id];
    if (item?.layers.length === 0) return 'all';
    reached.push(...(item?.layers ?? []));
  }
  return reached;
}

const withFront = (effect: Effect, front: string | undefined): Id[] =>
  listed(effect.layers).flatMap(({ id, item }) => (item.front === front ? [id] : []));

/** A front that frees nothing may still cut a body: then it is only seen. */
function ofFront({ before, after, path }: DocumentChange): Reached {
  const [, , id] = path;
  if (id === undefined) return 'nothing';
  const freed = [...withFront(before, id), ...withFront(after, id)];
  return freed.length > 0 ? freed : 'dress';
}

/** Trails are laid step by step; what else is drawn is a function of what is there. A beam's end is an event. */
function ofDrawn({ before, after, id, path }: LayerChange): Reached {
  const [, , , , part, name] = path;
  const kinds = [before, after].map((effect) => effect.layers.byId[id]?.drawn.kind ?? 'sprite');
  const [kind] = kinds;
  const table = Object.hasOwn(RIBBON_SETTINGS, kind!) ? tableByName(RIBBON_SETTINGS[kind as Ribbon['kind']]) : null;
  if (kinds.every((each) => each === kind) && table && part === 'settings' && name)
    return table[name]?.acts === 'dress' ? 'dress' : [id];
  return kinds.some((each) => each === 'trail' || each === 'beam') ? [id] : 'dress';
}

/** Whether what a layer's particles carry reaches what is computed: a force or a ribbon reads it, or a link passes it on. */
function areChannelsFelt(effect: Effect, id: Id): boolean {
  const layer = effect.layers.byId[id];
  if (!layer) return false;
  const isShaped = (settings: object) => areShapedBy(settings, ['channel']);
  const computed = Object.entries(layer.settings).filter(
    ([name]) => tableByName(LAYER_SETTINGS)[name]?.acts !== 'dress',
  );
  return (
    isShaped(Object.fromEntries(computed)) ||
    forcesOn(effect, id).some(({ item }) => isShaped(item.settings)) ||
    surfacesFor(effect, id).some(({ item }) => isShaped(item.settings)) ||
    listed(layer.links).some(({ item }) => isShaped(item.settings)) ||
    (layer.drawn.kind !== 'sprite' && isShaped(layer.drawn.settings)) ||
    // What is taken where a particle is born is kept.
    listed(layer.channels).some(({ item }) => item.base.kind === 'taken') ||
    passing(effect, 'channels', id).length > 0
  );
}

/** Layers that meet the mesh which a layer is drawn as, or are born on it. */
function meeting(effect: Effect, id: Id): Id[] {
  const met = listed(effect.surfaces).flatMap(({ item }) =>
    item.kind === 'layer' && item.layer === id ? layersMeeting(effect, item) : [],
  );
  const born = listed(effect.layers).flatMap((each) =>
    each.item.source.kind === 'drawn' && each.item.source.layer === id ? [each.id] : [],
  );
  return [...met, ...born];
}

function ofLayer({ before, after, path }: DocumentChange): Reached {
  const [, , id, field] = path;
  if (id === undefined) return 'dress';
  const reaches = field === undefined ? 'layer' : PARTS.layer.reaches![field as keyof Layer];
  if (reaches === 'nothing') return 'nothing';
  const own = ofField(reaches, { before, after, path, id });
  const met = [...meeting(before, id), ...meeting(after, id)];
  if (met.length === 0 || own === 'all') return own;
  return typeof own === 'string' ? met : [...own, ...met];
}

function ofItem(change: DocumentChange): Reached {
  const [table, , , field] = change.path;
  switch (table) {
    case 'layers':
      return ofLayer(change);
    case 'stage':
      return ofField(PARTS.stage.reaches![change.path[1] as keyof Effect['stage']], change);
    case 'quality':
      return ofField(PARTS.quality.reaches![change.path[1] as keyof Effect['quality']], change);
    case 'signals':
      return ofField(field === 'name' ? PARTS.signal.reaches!.name : PARTS.signal.reaches!.tried, change);
    default:
      return field === 'name' ? ofField(PARTS.channel.reaches!.name, change) : 'dress';
  }
}

/** What a change of a field reaches, by what the map of the document says of it. */
function ofField(reaches: Reaches, change: DocumentChange & { readonly id?: Id }): Reached {
  const { before, after, path } = change;
  const id = change.id ?? '';
  switch (reaches) {
    case 'nothing':
    case 'dress':
    case 'all':
      return reaches;
    case 'layer':
      return [id];
    case 'declared':
      return ofSetting({ ...change, id });
    case 'items':
      return ofItem(change);
    case 'listed':
      return listedFor(change);
    case 'whereColourIsPassed':
      return hasPassedColours(before, after) ? 'all' : 'dress';
    case 'whereDialled':
      return ofDial(change);
    case 'whereAwaited':
      return waitingForAny(before, after, path[2]);
    case 'whereFelt':
      return [before, after].some((effect) => areChannelsFelt(effect, id)) ? [id] : 'dress';
    case 'whereFreed':
      return ofFront(change);
    case 'whereSeen':
      return ofTiers(change);
    case 'whereLaid':
      return ofDrawn({ ...change, id });
  }
}

/** A tier that nobody sees is only kept. Lights are given by the stage, and sizes are read for drawing. */
function ofTiers({ before, after, path: [, , tier, field] }: DocumentChange): Reached {
  if ([before, after].every(({ quality }) => quality.shown !== tier)) return 'nothing';
  return field === 'lights' || field === 'keepsArea' ? 'dress' : 'all';
}

/** A dial reaches what a change at each of the places that read it would. */
function ofDial({ before, after, path: [, , dial] }: DocumentChange): Reached {
  if (dial === undefined) return 'nothing';
  const ids: Id[] = [];
  let isDress = false;
  for (const effect of [before, after])
    for (const { path } of refsTo(effect, 'dials', dial)) {
      const reached = reachOf({ path: path.map(String) }, before, after);
      if (reached === 'all') return 'all';
      if (reached === 'dress') isDress = true;
      else if (reached !== 'nothing') ids.push(...reached);
    }
  if (ids.length > 0) return ids;
  return isDress ? 'dress' : 'nothing';
}

const reachOf = ({ path }: Pick<Change, 'path'>, before: Effect, after: Effect): Reached =>
  ofField(PARTS.effect.reaches![path[0] as keyof Effect], { before, after, path });

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
export function reachBetween(before: Effect, after: Effect, changes: readonly Change[] = diff(before, after)): Reach {
  let isDress = false;
  const layers = new Set<Id>();
  for (const change of changes) {
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
