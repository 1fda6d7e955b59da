import { TIERS, type Tier } from '@jinx/core/document';

/** What tiers are called on screen. */
export const TIER_CHOICES = TIERS.map((value) => ({ value, label: value }));
export const FROM_CHOICES = TIERS.map((value) => ({
  value,
  text: { low: 'every quality', middle: 'middle quality up', high: 'high quality only' }[value],
}));
export const asTier = (value: string | number): Tier => value as Tier;
