import type { Effect, Layer, Moment } from './effect.ts';
import { settingSchema } from './settingSchema.ts';
import type { Colour, Setting } from './setting.ts';
import { hasItem, listed, type Collection } from './collection.ts';
import { stepTable, type Step } from './look.ts';
import { placesIn, settingsIn } from './walk.ts';

export interface ReferenceProblem {
  readonly path: string;
  readonly sentence: string;
  readonly code: 'document.reference' | 'document.circle';
}

/** Finds ids that lead nowhere (a thing gone from the stage is a finding, not a fault: it may come back) and circles of parents, derived colours or followed layers. */
export function referenceProblems(effect: Effect): ReferenceProblem[] {
  const problems: ReferenceProblem[] = [];
  const say = (path: string, sentence: string, code: ReferenceProblem['code'] = 'document.reference') =>
    problems.push({ path, sentence, code });

  const colour = (value: Colour, path: string) => {
    if ('palette' in value && !hasItem(effect.palette, value.palette))
      say(path, `no palette colour "${value.palette}"`);
  };
  const setting = (value: Setting, path: string) => {
    const base = value.base;
    if (base.kind === 'measure' && !hasItem(effect.measures, base.measure))
      say(`${path}.base`, `no measure "${base.measure}"`);
    if (base.kind === 'set') base.values.forEach((entry, index) => colour(entry, `${path}.base.values.${index}`));
    if (base.kind === 'fixed' && typeof base.value === 'object' && !Array.isArray(base.value))
      colour(base.value, `${path}.base`);
    for (const { id, item } of listed(value.shapers)) {
      if (item.reads.kind === 'dial' && !hasItem(effect.dials, item.reads.dial))
        say(`${path}.shapers.${id}`, `no dial "${item.reads.dial}"`);
      if (item.reads.kind === 'channel' && !hasItem(effect.channels, item.reads.channel))
        say(`${path}.shapers.${id}`, `no channel "${item.reads.channel}"`);
      if (item.mapping.kind === 'gradient')
        for (const stop of listed(item.mapping.stops))
          colour(stop.item.colour, `${path}.shapers.${id}.stops.${stop.id}`);
    }
  };

  for (const place of placesIn(effect)) {
    if (place.kind !== 'dial') continue;
    const kind = effect.dials.byId[place.dial]?.kind;
    if (kind !== 'place' && kind !== 'direction')
      say('dials', `no place or direction "${place.dial}" among the dials`);
  }
  for (const { at, name, setting: value } of settingsIn(effect)) setting(value, `${at}.${name}`);
  for (const { id, item } of listed(effect.forces))
    for (const layer of item.layers)
      if (!hasItem(effect.layers, layer)) say(`forces.${id}.layers`, `no layer "${layer}" to act on`);
  for (const { id, item } of listed(effect.surfaces)) {
    for (const layer of item.layers)
      if (!hasItem(effect.layers, layer)) say(`surfaces.${id}.layers`, `no layer "${layer}" to be met by`);
    if (item.kind === 'layer' && !hasItem(effect.layers, item.layer))
      say(`surfaces.${id}.layer`, `no layer "${item.layer}" whose mesh is met`);
  }
  const steps = (all: Collection<Step>, path: string) => {
    for (const { id, item } of listed(all))
      if (item.kind === 'gradient')
        for (const stop of listed(item.stops)) colour(stop.item.colour, `${path}.${id}.stops.${stop.id}`);
  };
  for (const { id, item } of listed(effect.looks)) steps(item.steps, `looks.${id}.steps`);
  const lookOf = ({ look }: Layer, path: string) => {
    if (look.kind === 'own') return steps(look.steps, `${path}.steps`);
    const named = effect.looks.byId[look.look];
    if (!named) return say(path, `no look "${look.look}"`);
    for (const [id, changes] of Object.entries(look.changes)) {
      const kind = named.steps.byId[id]?.kind;
      if (!kind) say(`${path}.changes.${id}`, `the look "${named.name}" has no step "${id}"`);
      for (const [name, value] of Object.entries(changes)) {
        const table = kind && stepTable(kind);
        const declaration = table && Object.hasOwn(table, name) ? table[name] : undefined;
        const at = `${path}.changes.${id}.${name}`;
        if (kind && declaration?.value !== 'number') say(at, `a step of kind ${kind} has no number "${name}"`);
        const checked = declaration?.value === 'number' ? settingSchema(declaration).safeParse(value) : null;
        if (checked && !checked.success) say(at, checked.error.issues[0]!.message);
      }
    }
  };
  const drawnAs = (drawn: Layer['drawn'], path: string) => {
    if (drawn.kind === 'mesh')
      for (const { part, look } of drawn.parts)
        if (!hasItem(effect.looks, look)) say(`${path}.parts`, `no look "${look}" for the part "${part}"`);
    if (drawn.kind === 'body' && drawn.front !== null && !hasItem(effect.fronts, drawn.front))
      say(`${path}.front`, `no front "${drawn.front}"`);
  };
  const moment = (value: Moment | null, path: string) => {
    if (value?.measure && !hasItem(effect.measures, value.measure)) say(path, `no measure "${value.measure}"`);
    if (value?.after.kind === 'layer' && !hasItem(effect.layers, value.after.layer))
      say(path, `no layer "${value.after.layer}"`);
  };
  for (const { id, item } of listed(effect.layers)) {
    const path = `layers.${id}`;
    if (item.front !== null && !hasItem(effect.fronts, item.front)) say(`${path}.front`, `no front "${item.front}"`);
    lookOf(item, `${path}.look`);
    if (item.inside !== null && (item.inside === id || !hasItem(effect.layers, item.inside)))
      say(`${path}.inside`, `no other layer "${item.inside}" to be drawn inside of`);
    if (item.seenBy !== null && effect.dials.byId[item.seenBy]?.kind !== 'switch')
      say(`${path}.seenBy`, `no switch "${item.seenBy}" among the dials`);
    moment(item.births.from, `${path}.births.from`);
    moment(item.births.until, `${path}.births.until`);
    if (item.parent !== null && !hasItem(effect.groups, item.parent))
      say(`${path}.parent`, `no group "${item.parent}"`);
    if (item.population.kind === 'follows' && !hasItem(effect.layers, item.population.layer))
      say(`${path}.population`, `no layer "${item.population.layer}" to follow`);
    drawnAs(item.drawn, `${path}.drawn`);
    for (const link of listed(item.links))
      if (!hasItem(effect.layers, link.item.layer)) say(`${path}.links.${link.id}`, `no layer "${link.item.layer}"`);
    for (const channel of item.channels.order)
      if (!hasItem(effect.channels, channel)) say(`${path}.channels.${channel}`, `no channel "${channel}"`);
    for (const { id: burst, item: own } of listed(item.bursts))
      if (own.signal !== null && !hasItem(effect.signals, own.signal))
        say(`${path}.bursts.${burst}.signal`, `no signal "${own.signal}"`);
    if (item.source.kind === 'particles' && !hasItem(effect.layers, item.source.layer))
      say(`${path}.source`, `no layer "${item.source.layer}" to be born on`);
  }

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
    const parent = effect.groups.byId[id]!.parent;
    if (parent !== null && !hasItem(effect.groups, parent)) say(`groups.${id}.parent`, `no group "${parent}"`);
    circle('groups', id, (at) => effect.groups.byId[at]?.parent ?? null);
    const { linked } = effect.groups.byId[id]!;
    for (const { path, sentence, code } of linked ? referenceProblems(linked.effect) : [])
      say(`groups.${id}.linked.effect.${path}`, sentence, code);
  }
  for (const id of effect.palette.order) {
    const entry = effect.palette.byId[id]!.colour;
    if (entry.kind === 'derived' && !hasItem(effect.palette, entry.from))
      say(`palette.${id}`, `no palette colour "${entry.from}"`);
    circle('palette', id, (at) => {
      const next = effect.palette.byId[at]?.colour;
      return next?.kind === 'derived' ? next.from : null;
    });
  }
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
