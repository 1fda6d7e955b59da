import { listed, type Layer, type NumberSetting } from '@jinx/core/document';
import { plainNumber } from '../entry/numbers';

const MOST = { rate: 1_000_000, count: 1_000_000, standing: 100_000 };

function multiplied(setting: NumberSetting, by: number, most: number, isWhole: boolean): number | null {
  const { base } = setting;
  if (base.kind !== 'fixed' || base.value === 0) return null;
  const value = Math.min(
    most,
    isWhole ? Math.max(1, Math.round(base.value * by)) : Number((base.value * by).toPrecision(6)),
  );
  setting.base = { kind: 'fixed', value };
  return value;
}

/** Makes so many times as many be born: by the rate, the bursts and what stands. Returns what they are now, in words. */
export function multiplyBirths(layer: Layer, by: number): string {
  const rate = multiplied(layer.settings['births.rate'], by, MOST.rate, false);
  const standing = multiplied(layer.settings['births.standing'], by, MOST.standing, true);
  for (const { id } of listed(layer.bursts)) {
    const burst = layer.bursts.byId[id]!;
    burst.count = Math.min(MOST.count, Math.round(burst.count * by));
    burst.most = Math.max(burst.count, Math.min(MOST.count, Math.round(burst.most * by)));
  }
  const words = [
    rate === null ? '' : `${plainNumber(rate)} a second`,
    standing === null ? '' : `${standing} standing`,
    ...listed(layer.bursts).map(({ item }) => `a burst of ${item.count}`),
  ].filter(Boolean);
  return words.join(', ') || 'nothing is born';
}
