import { listed, type Collection, type Id } from './collection.ts';
import {
  CHANNEL_SETTING,
  DRAWN_SETTINGS,
  FORCE_SETTINGS,
  FRONT_SETTINGS,
  LAYER_SETTINGS,
  LINK_SETTINGS,
  RIBBON_SETTINGS,
  SURFACE_SETTINGS,
  type Declaration,
} from './declarations/index.ts';
import { isRibbon, type DrawnAs, type Effect, type Layer, type Place } from './effect.ts';
import { stepSettings, stepTable, type Step } from './look.ts';
import type { Setting } from './setting.ts';

/** A setting where it stands in a document: the very object, so that a draft may be written into. */
export interface FoundSetting {
  /** Where it stands, as problems name it: as in "layers.ID.forces.ID", with its own name to follow. */
  readonly at: string;
  /** As the chapters name its holder: "" for a layer's own, "force/ID", "link/ID", "ribbon", "drawn", "channels", "step/ID". */
  readonly of: string;
  readonly name: string;
  readonly declaration: Declaration;
  readonly setting: Setting;
  /** The layer it belongs to; null where it is the effect's own. */
  readonly layer: Id | null;
}

const tableOfDrawn = (drawn: Exclude<DrawnAs, { kind: 'sprite' }>): Record<string, Declaration> =>
  isRibbon(drawn) ? RIBBON_SETTINGS[drawn.kind] : DRAWN_SETTINGS[drawn.kind];

type Where = Pick<FoundSetting, 'at' | 'of' | 'layer'>;

const held = (where: Where, settings: object, table: Record<string, Declaration>): FoundSetting[] =>
  Object.entries(settings as Record<string, Setting>).flatMap(([name, setting]) => {
    const declaration = table[name];
    return declaration ? [{ ...where, name, declaration, setting }] : [];
  });

const inSteps = (steps: Collection<Step>, at: string, layer: Id | null): FoundSetting[] =>
  listed(steps).flatMap(({ id, item }) =>
    held({ at: `${at}.${id}`, of: `step/${id}`, layer }, stepSettings(item), stepTable(item.kind)),
  );

function inLook({ look }: Layer, { looks }: Pick<Effect, 'looks'>, at: string, layer: Id): FoundSetting[] {
  if (look.kind === 'own') return inSteps(look.steps, `${at}.steps`, layer);
  const named = looks.byId[look.look];
  return Object.entries(look.changes).flatMap(([id, changes]) => {
    const step = named?.steps.byId[id];
    return step ? held({ at: `${at}.changes.${id}`, of: `step/${id}`, layer }, changes, stepTable(step.kind)) : [];
  });
}

/** Every setting of one layer: its own, its forces', links', channels', look's, and those of what it is drawn as. */
export function settingsOfLayer(effect: Pick<Effect, 'layers' | 'looks' | 'channels'>, id: Id): FoundSetting[] {
  const layer = effect.layers.byId[id]!;
  const at = `layers.${id}`;
  const channel = (of: Id): Declaration => ({ ...CHANNEL_SETTING, name: effect.channels.byId[of]?.name ?? '' });
  return [
    ...held({ at: `${at}.settings`, of: '', layer: id }, layer.settings, LAYER_SETTINGS),
    ...listed(layer.forces).flatMap(({ id: force, item }) =>
      held(
        { at: `${at}.forces.${force}`, of: `force/${force}`, layer: id },
        item.settings,
        FORCE_SETTINGS[item.kind],
      ),
    ),
    ...listed(layer.links).flatMap(({ id: link, item }) =>
      held({ at: `${at}.links.${link}`, of: `link/${link}`, layer: id }, item.settings, LINK_SETTINGS),
    ),
    ...listed(layer.channels).map(({ id: name, item }) => ({
      at: `${at}.channels`,
      of: 'channels',
      layer: id,
      name,
      declaration: channel(name),
      setting: item,
    })),
    ...(layer.drawn.kind === 'sprite'
      ? []
      : held(
          { at: `${at}.drawn`, of: isRibbon(layer.drawn) ? 'ribbon' : 'drawn', layer: id },
          layer.drawn.settings,
          tableOfDrawn(layer.drawn),
        )),
    ...inLook(layer, effect, `${at}.look`, id),
  ];
}

/** Every setting of an effect, its layers' first. */
export function settingsIn(effect: Effect): FoundSetting[] {
  const own = (at: string, of: string) => ({ at, of, layer: null });
  return [
    ...effect.layers.order.flatMap((id) => settingsOfLayer(effect, id)),
    ...listed(effect.forces).flatMap(({ id, item: { force } }) =>
      held(own(`forces.${id}`, `force/${id}`), force.settings, FORCE_SETTINGS[force.kind]),
    ),
    ...listed(effect.surfaces).flatMap(({ id, item }) =>
      held(own(`surfaces.${id}`, `surface/${id}`), item.settings, SURFACE_SETTINGS[item.kind]),
    ),
    ...listed(effect.fronts).flatMap(({ id, item }) =>
      held(own(`fronts.${id}`, `front/${id}`), item.settings, FRONT_SETTINGS),
    ),
    ...listed(effect.looks).flatMap(({ id, item }) => inSteps(item.steps, `looks.${id}.steps`, null)),
  ];
}

/** Every place that belongs to one layer: the very objects. */
export function placesOfLayer(effect: Pick<Effect, 'layers'>, id: Id): Place[] {
  const { source, aim, forces, drawn } = effect.layers.byId[id]!;
  return [
    ...('place' in source ? [source.place] : []),
    ...(source.kind === 'hits' ? listed(source.hits).map(({ item }) => item.place) : []),
    aim,
    ...listed(forces).map(({ item }) => item.place),
    ...('from' in drawn ? [drawn.from, drawn.to] : []),
  ];
}

/** Every place of an effect, its layers' first. */
export const placesIn = (effect: Effect): Place[] => [
  ...effect.layers.order.flatMap((id) => placesOfLayer(effect, id)),
  ...listed(effect.forces).map(({ item }) => item.force.place),
  ...listed(effect.surfaces).flatMap(({ item }) => ('place' in item ? [item.place] : [])),
  ...listed(effect.fronts).map(({ item }) => item.place),
];
