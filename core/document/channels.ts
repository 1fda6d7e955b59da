import { layerOf, type HolderAddress } from './parts/address.ts';
import { defaultSetting, listed, withItem, withoutItem, type Id, type Setting } from '../settings/index.ts';
import { CHANNEL_SETTING } from './declarations/index.ts';
import type { Effect } from './schema/index.ts';
import { refsTo } from './parts/foundRefs.ts';
import { holderAt, nameOfPart } from './parts/parts.ts';
import { holdersOfLayer } from './parts/walk.ts';

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

function readersAt(effect: Effect, address: HolderAddress, id: Id): ChannelReader[] {
  const { settings } = holderAt(effect, address)!;
  const of = address.kind === 'layer' ? '' : nameOfPart(effect, address);
  return Object.entries(settings).flatMap(([setting, own]) =>
    isReader(own, id) ? [{ layer: layerOf(address), of, setting }] : [],
  );
}

/** The settings of a layer, of its forces, its look and what it is drawn as, that a channel shapes. */
export const channelReadersOf = (effect: Effect, layerId: Id, id: Id): ChannelReader[] =>
  holdersOfLayer(effect, layerId).flatMap((address) => readersAt(effect, address, id));

/** Which layers' particles carry a channel, and which settings are shaped by it. */
export function channelUse(effect: Effect, id: Id): { carriedBy: Id[]; readBy: ChannelReader[] } {
  const shared = effect.forces.order.flatMap((force) => readersAt(effect, { kind: 'sharedForce', id: force }, id));
  return {
    carriedBy: effect.layers.order.filter((layer) => effect.layers.byId[layer]!.channels.byId[id]),
    readBy: [
      ...effect.layers.order.flatMap((layer) => channelReadersOf(effect, layer, id)),
      ...shared.map((reader) => ({ ...reader, of: `${reader.of} of all` })),
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
  if (refsTo(draft, 'channels', id).length === 0) draft.channels = withoutItem(draft.channels, id);
}
