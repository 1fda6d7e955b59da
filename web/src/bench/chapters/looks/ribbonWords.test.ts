import { newRibbon, type NumberSetting, type Ribbon } from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import { settingText } from '../../entry/format';
import { RIBBON_SETTINGS } from '@jinx/core/document';
import { ribbonSentences } from './ribbonWords';

/** The sentence of a strand as it is read, its chips in place. */
function strand(strands: number, longest: number): string {
  const made = newRibbon('strand') as Extract<Ribbon, { kind: 'strand' }>;
  made.settings.strands.base = { kind: 'fixed', value: strands };
  made.settings.longest.base = { kind: 'fixed', value: longest };
  const settings = made.settings as unknown as Record<'strands' | 'longest', NumberSetting>;
  return ribbonSentences(made)[0]!.replace(/\{(\w+)\}/g, (_, name: 'strands' | 'longest') =>
    settingText(settings[name], RIBBON_SETTINGS.strand[name], () => '').replace(/\u00a0/g, ' '),
  );
}

describe('the sentence of strands', () => {
  it.each([
    [1, 0, 'Strung on 1 strand in the order of their births, never cut'],
    [3, 0, 'Strung on 3 strands in the order of their births, never cut'],
    [2, 0.5, 'Strung on 2 strands in the order of their births, cut at gaps over 0.5 m'],
  ])('of %d with gaps of %d m', (strands, longest, words) => expect(strand(strands, longest)).toBe(words));
});
