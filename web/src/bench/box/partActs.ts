import {
  type Effect,
  forcesOn,
  forceWord,
  formatAddress,
  type FoundSetting,
  type Id,
  type Link,
  listed,
  nameOfPart,
  nameOfSetting,
  type NumberDeclaration,
  type NumberSetting,
  refsTo,
  STEP_NAMES,
  stepsOf,
} from '@jinx/core/document';
import { bringOut } from '@jinx/core/editing';
import { forceAddress } from '../chapters/changeForce';
import type { Target } from './target';

/** Removing and muting what the chosen layer has. */
export function removeTargets(effect: Effect, layerId: Id): Target[] {
  const layer = effect.layers.byId[layerId];
  if (!layer) return [];
  const acts = (
    id: string,
    name: string,
    isMuted: boolean,
    remove: Target['run'],
    mute: Target['run'],
  ): readonly Target[] => [
    {
      id: `remove ${id}`,
      text: `remove ${name}`,
      otherWords: [`delete ${name}`, `no ${name}`],
      detail: `of ${layer.name}`,
      previews: true,
      run: remove,
    },
    {
      id: `mute ${id}`,
      text: `${isMuted ? 'unmute' : 'mute'} ${name}`,
      otherWords: [`${isMuted ? 'enable' : 'disable'} ${name}`],
      detail: `of ${layer.name}`,
      previews: true,
      run: mute,
    },
  ];
  return [
    ...forcesOn(effect, layerId).flatMap(({ id, item, isShared }) => {
      const address = forceAddress(layerId, id, isShared);
      return acts(
        id,
        forceWord(item.kind),
        item.muted,
        ({ removeForce }) => removeForce(address),
        ({ changeForce }) =>
          changeForce(
            item.muted ? 'unmute a force' : 'mute a force',
            address,
            (force) => (force.muted = !item.muted),
          ),
      );
    }),
    ...stepsOf(effect, layer).flatMap(({ id, item }) =>
      acts(
        id,
        STEP_NAMES[item.kind].toLowerCase(),
        item.muted,
        ({ removeStep }) => removeStep(id),
        ({ muteStep }) => muteStep(id, !item.muted),
      ),
    ),
  ];
}

const WHENS: Readonly<Record<Link['on'], readonly [string, ...string[]]>> = {
  birth: ['on birth', 'when each is born', 'on spawn'],
  death: ['on death', 'when each dies'],
  hit: ['on hit', 'when each hits a surface', 'on collision'],
  along: ['along the way', 'over time', 'while each lives'],
  release: ['on release', 'when each is freed'],
};
/** When each link of the chosen layer acts. */
export const linkTargets = (effect: Effect, layerId: Id): Target[] =>
  listed(effect.layers.byId[layerId]?.links ?? { order: [], byId: {} }).flatMap(({ id }) => {
    const name = nameOfPart(effect, { kind: 'link', layer: layerId, id });
    return (Object.keys(WHENS) as Link['on'][]).map((on): Target => {
      const [text, ...otherWords] = WHENS[on];
      return {
        id: `link ${id} ${on}`,
        text: `${name} ${text}`,
        otherWords: [text, ...otherWords],
        detail: 'when a link acts',
        previews: true,
        run: ({ change, leadTo }) => {
          change('change when a link acts', (draft) => {
            const link = draft.layers.byId[layerId]?.links.byId[id];
            if (link) link.on = on;
          });
          leadTo('links');
        },
      };
    });
  });

/** Bringing numbers out, as dials that others turn. */
export const exposeTargets = (effect: Effect, found: readonly FoundSetting[]): Target[] =>
  found
    .filter(({ declaration, setting }) => {
      if (declaration.value !== 'number' || !declaration.reads.includes('dial')) return false;
      return !listed((setting as NumberSetting).shapers).some(({ item }) => item.reads.kind === 'dial');
    })
    .map(({ address, declaration }): Target => {
      const name = nameOfSetting(effect, address, declaration);
      return {
        id: `expose ${formatAddress(address)}`,
        text: `expose ${name}`,
        otherWords: [`bring out ${name}`, `dial of ${name}`],
        detail: 'makes a dial of it',
        run: (tools) => {
          const ids = { dial: tools.newId(), shaper: tools.newId() };
          const { name: layer } = effect.layers.byId[tools.chosenId()] ?? { name: '' };
          tools.changeSetting(address, `bring out ${name}`, (target, draft) =>
            bringOut(
              draft,
              target as NumberSetting,
              declaration as NumberDeclaration,
              ids,
              `${layer} ${name}`.trim(),
            ),
          );
        },
      };
    });

/** What holds the chosen layer's particles until a front frees them. */
export const frontTargets = (effect: Effect, layerId: Id): Target[] =>
  effect.layers.byId[layerId]
    ? listed(effect.fronts).map(({ id, item }): Target => ({
        id: `hold by ${id}`,
        text: `hold and free with ${item.name}`,
        otherWords: [`release front ${item.name}`, `front ${item.name}`],
        detail: `${refsTo(effect, 'fronts', id).length} use it`,
        previews: true,
        run: ({ changeLayers, leadTo }) => {
          changeLayers('free particles by a front', (layer) => {
            layer.front = id;
            if (layer.drawn.kind === 'body') layer.drawn.front = id;
          });
          leadTo('source');
        },
      }))
    : [];
