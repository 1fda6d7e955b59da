import type { SettingsOf } from '../../../settings/index.ts';
import { APPEARANCE_SETTINGS } from './appearance.ts';
import { BIRTHS_SETTINGS } from './births.ts';
import { LIFE_SETTINGS } from './life.ts';
import { MOTION_SETTINGS } from './motion.ts';
import { RELEASE_SETTINGS } from './release.ts';
import { SOURCE_SETTINGS } from './source.ts';

/** Every setting a layer has, chapter by chapter. Editor, evaluator, invalidation, checks and docs read this table. */
export const LAYER_SETTINGS = {
  ...SOURCE_SETTINGS,
  ...BIRTHS_SETTINGS,
  ...MOTION_SETTINGS,
  ...RELEASE_SETTINGS,
  ...LIFE_SETTINGS,
  ...APPEARANCE_SETTINGS,
} as const;

export type LayerSettings = SettingsOf<typeof LAYER_SETTINGS>;
export type LayerSettingName = keyof LayerSettings;
