import { carryChannel, channelReadersOf, listed, ownerOf, type Effect } from '../document/index.ts';
import type { Problem } from './mend.ts';

/** Channels that shape a layer but that its particles do not carry: they read 0. */
export function channelProblems(effect: Effect, layerId: string): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  const owner = ownerOf(effect, layerId);
  return listed(effect.channels)
    .filter(({ id }) => !effect.layers.byId[owner]!.channels.byId[id])
    .filter(({ id }) => channelReadersOf(effect, layerId, id).length > 0)
    .map(({ id, item }) => ({
      id,
      sentence: `${layer.name} is shaped by ${item.name}, which its particles do not carry: it counts as 0.`,
      mend: { label: `Let them carry ${item.name}`, apply: (draft) => carryChannel(draft, owner, id, item.name) },
    }));
}
