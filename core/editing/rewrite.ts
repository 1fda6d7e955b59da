import { listed, type Colour, type Id, type Setting, type Step } from '../document/index.ts';

/** What a setting may refer to. */
export type Referred = 'palette' | 'measures' | 'dials' | 'channels';

const recolour = (colour: Colour, to: (id: Id) => Id): Colour =>
  'palette' in colour ? { palette: to(colour.palette) } : colour;

/** Lets a setting refer to other entries, in place: its base, and what its shapers read and map to. */
export function reread(setting: Setting, to: (table: Referred, id: Id) => Id): void {
  const { base } = setting;
  const palette = (id: Id) => to('palette', id);
  if (base.kind === 'measure') base.measure = to('measures', base.measure);
  else if (base.kind === 'set') base.values = base.values.map((colour) => recolour(colour, palette));
  else if (base.kind === 'fixed' && typeof base.value === 'object' && !Array.isArray(base.value))
    base.value = recolour(base.value, palette);
  for (const { item } of listed(setting.shapers)) {
    if (item.reads.kind === 'dial') item.reads = { kind: 'dial', dial: to('dials', item.reads.dial) };
    if (item.reads.kind === 'channel') item.reads = { kind: 'channel', channel: to('channels', item.reads.channel) };
    if (item.mapping.kind === 'gradient')
      for (const stop of listed(item.mapping.stops)) stop.item.colour = recolour(stop.item.colour, palette);
  }
}

/** Lets the stops of a gradient step refer to other colours of the palette, in place. */
export function recoloured(step: Extract<Step, { kind: 'gradient' }>, to: (id: Id) => Id): void {
  for (const stop of listed(step.stops)) stop.item.colour = recolour(stop.item.colour, to);
}
