import {
  FORCE_SETTINGS,
  LAYER_SETTINGS,
  RIBBON_SETTINGS,
  STEP_SETTINGS,
  SURFACE_SETTINGS,
  type Declaration,
} from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import { settingHelp } from './settingHelp';

/** The settings of every layer, force, surface, ribbon and step of a look. */
const ALL: readonly Declaration[] = [
  LAYER_SETTINGS,
  ...[FORCE_SETTINGS, SURFACE_SETTINGS, RIBBON_SETTINGS, STEP_SETTINGS].flatMap((kinds) =>
    Object.values<object>(kinds),
  ),
].flatMap((table) => Object.values<Declaration>(table as Record<string, Declaration>));

describe('the help of a setting', () => {
  it('says of a number what it does, its limits, where it begins, when it acts, and what shapes it', () =>
    expect(settingHelp(LAYER_SETTINGS['life.opacity'])).toEqual([
      'How opaque a particle is.',
      '0 to 100%, or a spread such as 1-2. Begins as 100%.',
      'Acts on the drawing alone: nothing is simulated again.',
      'Can be shaped by age, the effect’s time, the time of a stretch, speed, distance travelled, the distance to its aim, the speed of what carries it, a channel, a dial.',
    ]));

  it('is there for every setting, with its limits or choices and where it begins', () => {
    expect(ALL.length).toBeGreaterThan(200);
    for (const declaration of ALL) {
      const [help, limits] = settingHelp(declaration) as [string, string];
      expect(help, declaration.name).toMatch(/\.$/);
      expect(limits, declaration.name).toMatch(/Begins as /);
      if (declaration.value === 'choice') expect(limits).toMatch(/^One of: .+, .+\. Begins as /);
      if (declaration.value === 'vector') expect(limits).toMatch(/ on each axis\. Begins as /);
    }
  });
});
