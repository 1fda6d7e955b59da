import { lineageOf, listed, passes, withoutItem, type Effect, type Layer, type Link } from '../document/index.ts';
import type { Mend, Problem } from './mend.ts';

/** Links of a layer that do nothing, and why. */
export function linkProblems(effect: Effect, layerId: string): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  const { refused } = lineageOf(effect);
  const remove = (id: string): Mend => ({
    label: 'Remove the link',
    apply: (draft) => {
      const own = draft.layers.byId[layerId]!;
      own.links = withoutItem(own.links, id);
    },
  });
  return listed(layer.links).flatMap(({ id, item }): Problem[] => {
    if (item.muted) return [];
    const other = effect.layers.byId[item.layer]!;
    if (refused.has(`${layerId}/${id}`))
      return [
        {
          id,
          sentence:
            item.layer === layerId
              ? `${layer.name} sets itself off, without end: that link does nothing.`
              : `${layer.name} sets off ${other.name}, which sets off ${layer.name}: the link that closes the circle does nothing.`,
          mend: remove(id),
        },
      ];
    if (other.population.kind === 'follows')
      return [
        {
          id,
          sentence: `${layer.name} sets off ${other.name}, which shows another layer’s particles and has none of its own.`,
          mend: remove(id),
        },
      ];
    if (layer.population.kind === 'follows')
      return [
        {
          id,
          sentence: `${layer.name} shows another layer’s particles: a link of its own does nothing.`,
          mend: remove(id),
        },
      ];
    return colourLost(item, layer, other);
  });
}

/** A colour that is passed on, to a layer whose own gradient takes its place. */
function colourLost(link: Link, from: Layer, to: Layer): Problem[] {
  const setting = to.settings['life.colour'];
  const gradients = listed(setting.shapers).filter(
    ({ item }) => !item.muted && item.combine === 'replace' && item.mapping.kind === 'gradient',
  );
  const [first] = gradients;
  if (!first || setting.muted || !passes(link, 'colour')) return [];
  return [
    {
      id: `colour/${link.salt}`,
      sentence: `${from.name} passes its colour on to ${to.name}, whose own gradient takes its place: nothing is seen of it.`,
      severity: 'doubtful',
      mend: {
        label: 'Let the gradient tint it',
        apply: (draft) => {
          const own = Object.values(draft.layers.byId).find(({ salt }) => salt === to.salt)!;
          for (const { id } of gradients) own.settings['life.colour'].shapers.byId[id]!.combine = 'multiply';
        },
      },
    },
  ];
}
