import { listed, withItem, withoutItem, type Id } from './collection.ts';
import { CHANNEL_SETTING } from './declarations/index.ts';
import type { Effect } from './effect.ts';
import { stepsOf } from './look.ts';
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

const isReader = (setting: Setting, id: Id): boolean =>
  listed(setting.shapers).some(({ item }) => item.reads.kind === 'channel' && item.reads.channel === id);

const readersIn = (settings: object, id: Id, layer: Id | null, of: string): ChannelReader[] =>
  Object.entries(settings as Record<string, Setting>)
    .filter(([, setting]) => isReader(setting, id))
    .map(([setting]) => ({ layer, of, setting }));

/** The settings of a layer, of its forces and ribbons, that a channel shapes. */
export function channelReadersOf(effect: Effect, layerId: Id, id: Id): ChannelReader[] {
  const layer = effect.layers.byId[layerId]!;
  const { settings, forces, drawn } = layer;
  return [
    ...readersIn(settings, id, layerId, ''),
    ...listed(forces).flatMap(({ item }) => readersIn(item.settings, id, layerId, item.kind)),
    ...(drawn.kind === 'sprite' ? [] : readersIn(drawn.settings, id, layerId, drawn.kind)),
    ...stepsOf(effect, layer).flatMap(({ item }) => readersIn(item.settings, id, layerId, item.kind)),
  ];
}

/** Which layers' particles carry a channel, and which settings are shaped by it. */
export function channelUse(effect: Effect, id: Id): { carriedBy: Id[]; readBy: ChannelReader[] } {
  return {
    carriedBy: effect.layers.order.filter((layer) => effect.layers.byId[layer]!.channels.byId[id]),
    readBy: [
      ...effect.layers.order.flatMap((layer) => channelReadersOf(effect, layer, id)),
      ...listed(effect.forces).flatMap(({ item }) =>
        readersIn(item.force.settings, id, null, `${item.force.kind} of all`),
      ),
    ],
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
