import { listed, withItem, withoutItem, type Id } from './collection.ts';
import { CHANNEL_SETTING } from './declarations/index.ts';
import type { Effect, Layer } from './effect.ts';
import { defaultSetting } from './settingSchema.ts';
import type { Setting } from './setting.ts';

/** One setting that a channel shapes. */
export interface ChannelReader {
  readonly layer: Id | null;
  /** What has the setting, for people, as in "gravity"; empty for a layer's own. */
  readonly of: string;
  /** The setting's name in its table. */
  readonly setting: string;
}

const settingsOf = (holder: object): [string, Setting][] => Object.entries(holder as Record<string, Setting>);
const isReader = (setting: Setting, id: Id): boolean =>
  listed(setting.shapers).some(({ item }) => item.reads.kind === 'channel' && item.reads.channel === id);

/** Everything of an effect that has settings, with the layer it belongs to and what it is called. */
function holdersOf(effect: Effect): { layer: Id | null; of: string; settings: object }[] {
  const ofLayer = (id: Id, item: Layer) => [
    { layer: id, of: '', settings: item.settings },
    ...listed(item.forces).map(({ item: force }) => ({ layer: id, of: force.kind, settings: force.settings })),
    ...(item.drawn.kind === 'sprite' ? [] : [{ layer: id, of: item.drawn.kind, settings: item.drawn.settings }]),
  ];
  return [
    ...listed(effect.layers).flatMap(({ id, item }) => ofLayer(id, item)),
    ...listed(effect.forces).map(({ item }) => ({
      layer: null,
      of: `${item.force.kind} of all`,
      settings: item.force.settings,
    })),
  ];
}

/** Which layers' particles carry a channel, and which settings are shaped by it. */
export function channelUse(effect: Effect, id: Id): { carriedBy: Id[]; readBy: ChannelReader[] } {
  return {
    carriedBy: effect.layers.order.filter((layer) => effect.layers.byId[layer]!.channels.byId[id]),
    readBy: holdersOf(effect).flatMap(({ layer, of, settings }) =>
      settingsOf(settings)
        .filter(([, setting]) => isReader(setting, id))
        .map(([setting]) => ({ layer, of, setting })),
    ),
  };
}

/** Lets a layer's particles carry a channel, in a document that may be written into; one that is not there yet is made. */
export function carryChannel(draft: Effect, layerId: Id, id: Id, name: string): void {
  if (!draft.channels.byId[id]) draft.channels = withItem(draft.channels, id, { name });
  const layer = draft.layers.byId[layerId];
  if (layer && !layer.channels.byId[id])
    layer.channels = withItem(layer.channels, id, defaultSetting(CHANNEL_SETTING));
}

/** Lets a layer carry a channel no more; one that nothing carries or reads any longer goes altogether. */
export function dropChannel(draft: Effect, layerId: Id, id: Id): void {
  const layer = draft.layers.byId[layerId];
  if (layer) layer.channels = withoutItem(layer.channels, id);
  const { carriedBy, readBy } = channelUse(draft, id);
  if (carriedBy.length === 0 && readBy.length === 0) draft.channels = withoutItem(draft.channels, id);
}
