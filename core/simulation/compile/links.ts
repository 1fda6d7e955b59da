import {
  LINK_SETTINGS,
  listed,
  takersOf,
  takesColour,
  type Effect,
  type Lineage,
  type NumberDeclaration,
  type NumberSetting,
  type Passed,
  settingsByName,
  tableByName,
} from '../../document/index.ts';
import { NumberReader } from '../values/numberReader.ts';
import type { BoundLink } from './plan.ts';

/** The links of a layer that do something, in the order of their ids. */
export function bindLinks(layerId: string, effect: Effect, lineage: Lineage): BoundLink[] {
  return listed(effect.layers.byId[layerId]!.links)
    .filter(({ id, item }) => !item.muted && !lineage.refused.has(`${layerId}/${id}`))
    .filter(({ item }) => lineage.order.includes(item.layer))
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .map(({ id, item }) => {
      const number = (name: string, times = 1) =>
        new NumberReader(
          settingsByName<NumberSetting>(item)[name]!,
          tableByName<NumberDeclaration>(LINK_SETTINGS)[name]!,
          `link/${id}/${name}`,
          effect,
          { times },
        );
      const { once } = item.settings;
      return {
        on: item.on,
        to: item.layer,
        salt: item.salt,
        once: !once.muted && once.base.value,
        count: number('count'),
        chance: number('chance', 0.01),
        velocity: number('velocity', 0.01),
        colour: number('colour', 0.01),
        size: number('size', 0.01),
        channels: number('channels', 0.01),
        both: bothCarry(effect, layerId, item.layer),
        delay: number('delay'),
        every: number('every'),
        times: number('times'),
        takesColour: takesColour(effect.layers.byId[item.layer]!),
      };
    });
}

/** The channels that two layers both have, in the order of the second's. */
const bothCarry = (effect: Effect, from: string, to: string): { id: string; n: number }[] =>
  [...effect.layers.byId[to]!.channels.order]
    .sort()
    .map((id, n) => ({ id, n }))
    .filter(({ id }) => effect.layers.byId[from]!.channels.byId[id]);

/** Layers whose particles may begin with another's colour, with another's size, with what another carries. */
export function passedOn(effect: Effect): Readonly<Record<Passed, ReadonlySet<string>>> {
  return {
    colour: takersOf(effect, 'colour'),
    size: takersOf(effect, 'size'),
    channels: takersOf(effect, 'channels'),
  };
}
