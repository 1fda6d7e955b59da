import { assetsIn, listed, type AssetUse, type Effect } from '../../document/index.ts';

/** The figures, props and meshes an effect uses, by hash. */
export const rigsOf = (effect: Effect): string[] => hashesOf(effect, (as) => as !== 'picture');
/** The pictures an effect uses, by hash, those among them that dials may bring. */
export const picturesOf = (effect: Effect): string[] => hashesOf(effect, (as) => as === 'picture');

const hashesOf = (effect: Effect, isAsked: (as: AssetUse) => boolean): string[] => [
  ...new Set(assetsIn(effect).flatMap(({ rule, hash }) => (isAsked(rule.as) ? [hash] : []))),
];

/** All assets an effect uses, by hash, and those of effects that stand in it. */
export const assetsOf = (effect: Effect): string[] => [
  ...new Set([
    ...hashesOf(effect, () => true),
    ...listed(effect.groups).flatMap(({ item }) => (item.linked ? assetsOf(item.linked.effect) : [])),
  ]),
];
