import { listed, type Effect, type Id } from '../document/index.ts';
import { lifeSamples, lifetimes, samplesAt } from './lifeSamples.ts';
import type { Problem } from './mend.ts';
import { layerMend, middleOf, said } from './numbers.ts';

/** What may come or go of a particle as it is freed, as a share of its peak. */
const MOST_CHANGE = 0.15;
const NEAR_SECONDS = 0.0005;

/** What is held pops as it is freed, where what a newborn has is other than what it is held with. */
export function releaseProblems(effect: Effect, layerId: Id): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  if (layer.front === null) return [];
  const { settings, name } = layer;
  const [free] = samplesAt(effect, layerId, [NEAR_SECONDS / Math.max(0.02, lifetimes(effect, layerId)[1])]);
  const heldSize =
    middleOf(settings['life.size'], effect) * (settings['release.heldSize'].base as { value: number }).value;
  const heldOpacity = (settings['release.heldOpacity'].base as { value: number }).value;
  const held = ((heldSize / 100) * (heldSize / 100) * heldOpacity) / 100;
  const freed = free!.size * free!.size * free!.opacity;
  const peak = Math.max(held, ...lifeSamples(effect, layerId, 32).map(({ size, opacity }) => size * size * opacity));
  const change = peak > 0 ? (freed - held) / peak : 0;
  if (Math.abs(change) <= MOST_CHANGE) return [];
  const percent = said(Math.abs(change) * 100);
  const fades = free!.opacity < 0.02;
  return [
    {
      id: 'release',
      sentence: `${name} pops as it is freed: ${percent}% of what is seen of it ${change > 0 ? 'comes' : 'goes'} at once.`,
      severity: 'doubtful',
      where: 'life',
      measure: change,
      mend: fades
        ? layerMend(layerId, 'Let it be freed without fading in', (own) => {
            for (const { item } of listed(own.settings['life.opacity'].shapers)) {
              if (item.reads.kind !== 'age' || item.mapping.kind !== 'curve') continue;
              const keys = listed(item.mapping.curve.keys);
              const [first] = keys;
              const highest = Math.max(...keys.map(({ item: key }) => key.value));
              if (first) Object.assign(first.item, { value: highest, slopeIn: 0, slopeOut: 0 });
            }
          })
        : layerMend(layerId, 'Hold it as it will be when it is freed', (own) => {
            const begun = middleOf(own.settings['life.size'], effect);
            const share = begun > 0 ? Math.min(1000, (free!.size / begun) * 100) : 100;
            own.settings['release.heldSize'].base = { kind: 'fixed', value: Number(share.toFixed(2)) };
            own.settings['release.heldOpacity'].base = {
              kind: 'fixed',
              value: Number((free!.opacity * 100).toFixed(2)),
            };
          }),
    },
  ];
}
