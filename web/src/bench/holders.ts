import {
  CHANNEL_SETTING,
  DRAWN_SETTINGS,
  FORCE_SETTINGS,
  FRONT_SETTINGS,
  isRibbon,
  LAYER_SETTINGS,
  LINK_SETTINGS,
  RIBBON_SETTINGS,
  SURFACE_SETTINGS,
  stepSettings,
  stepTable,
  type Declaration,
  type Effect,
  type Force,
  type Setting,
  settingsByName,
} from '@jinx/core/document';

/** Settings by name, and the table that declares them. */
export interface Holder {
  readonly settings: Record<string, Setting>;
  readonly table: Record<string, Declaration>;
}

/** A force by its id: of the layer's own, or shared by the effect. */
export const forceIn = (effect: Effect, layerId: string, id: string): Force | null =>
  effect.layers.byId[layerId]?.forces.byId[id] ?? effect.forces.byId[id]?.force ?? null;

/** What holds a setting: the layer itself, or with `of` a part of it, as in "force/ID", "surface/ID", "front/ID", "link/ID" "ribbon", "drawn", "step/ID" or "channels". Null when that is gone. */
export function holderIn(effect: Effect, layerId: string, of?: string): Holder | null {
  const [kind, id = ''] = of?.split('/') ?? [];
  if (kind === 'force') {
    const force = forceIn(effect, layerId, id);
    return (
      force && {
        settings: settingsByName(force),
        table: FORCE_SETTINGS[force.kind],
      }
    );
  }
  if (kind === 'surface') {
    const surface = effect.surfaces.byId[id];
    return surface ? { settings: settingsByName(surface), table: SURFACE_SETTINGS[surface.kind] } : null;
  }
  if (kind === 'front') {
    const front = effect.fronts.byId[id];
    return front ? { settings: settingsByName(front), table: FRONT_SETTINGS } : null;
  }
  if (kind === 'ribbon') {
    const drawn = effect.layers.byId[layerId]?.drawn;
    return drawn && isRibbon(drawn) ? { settings: settingsByName(drawn), table: RIBBON_SETTINGS[drawn.kind] } : null;
  }
  if (kind === 'drawn') {
    const drawn = effect.layers.byId[layerId]?.drawn;
    return drawn && drawn.kind !== 'sprite' && !isRibbon(drawn)
      ? { settings: settingsByName(drawn), table: DRAWN_SETTINGS[drawn.kind] }
      : null;
  }
  if (kind === 'link') {
    const link = effect.layers.byId[layerId]?.links.byId[id];
    return link ? { settings: settingsByName(link), table: LINK_SETTINGS } : null;
  }
  if (kind === 'channels') {
    const own = effect.layers.byId[layerId]?.channels;
    if (!own) return null;
    const table = Object.fromEntries(
      own.order.map((channel) => [channel, { ...CHANNEL_SETTING, name: effect.channels.byId[channel]?.name ?? '' }]),
    );
    return { settings: own.byId, table };
  }
  const layer = effect.layers.byId[layerId];
  if (kind === 'step') {
    if (!layer) return null;
    const steps = layer.look.kind === 'own' ? layer.look.steps : effect.looks.byId[layer.look.look]?.steps;
    const step = steps?.byId[id];
    if (!step) return null;
    // Numbers that differ in this layer are the layer's own.
    const changes = layer.look.kind === 'named' ? layer.look.changes[id] : undefined;
    const settings = stepSettings(step);
    return { settings: changes ? { ...settings, ...changes } : settings, table: stepTable(step.kind) };
  }
  return layer ? { settings: settingsByName(layer), table: LAYER_SETTINGS } : null;
}

/** The force of another layer that answers to one of the chosen layer's: of the same id, or else of the same kind. */
export function forceBeside(effect: Effect, layerId: string, besideId: string, id: string): string | null {
  const kind = effect.layers.byId[layerId]?.forces.byId[id]?.kind;
  const beside = effect.layers.byId[besideId]?.forces;
  if (!kind || !beside) return null;
  return [id, ...beside.order].find((other) => beside.byId[other]?.kind === kind) ?? null;
}

/** What holds the setting of another layer that answers to one of the chosen layer's: by the same id, or else the same kind. */
export function holderBeside(effect: Effect, layerId: string, besideId: string, of?: string): Holder | null {
  if (besideId === layerId || !of) return holderIn(effect, besideId, of);
  const [part, id = ''] = of.split('/');
  const [own, beside] = [effect.layers.byId[layerId], effect.layers.byId[besideId]];
  if (!own || !beside) return null;
  if (part === 'force') {
    // What is shared by the effect is changed once, for all.
    const found = forceBeside(effect, layerId, besideId, id);
    return found === null ? null : holderIn(effect, besideId, `force/${found}`);
  }
  if (part === 'step') {
    const kindOf = (layer: typeof own, step: string) =>
      (layer.look.kind === 'own' ? layer.look.steps : effect.looks.byId[layer.look.look]?.steps)?.byId[step]?.kind;
    const kind = kindOf(own, id);
    const steps =
      beside.look.kind === 'own' ? beside.look.steps.order : (effect.looks.byId[beside.look.look]?.steps.order ?? []);
    const found = [id, ...steps].find((other) => kindOf(beside, other) === kind);
    return kind === undefined || found === undefined ? null : holderIn(effect, besideId, `step/${found}`);
  }
  if (part === 'ribbon' || part === 'drawn')
    return own.drawn.kind === beside.drawn.kind ? holderIn(effect, besideId, of) : null;
  if (part === 'link' || part === 'channels') return holderIn(effect, besideId, of);
  return null;
}
