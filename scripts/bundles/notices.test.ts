import { expect, it } from 'vitest';
import { noticesOf } from './notices.mjs';

it('what is served of others is named with its licence: packages, what these use, workers and the font', () => {
  const text = noticesOf(['web', 'stage', 'player', 'core']);
  expect(text).toMatch(/^Jinx\n\nMIT License/);
  for (const name of ['three', 'mediabunny', '@fontsource-variable/source-sans-3', 'ant-design-vue', '@vue/shared'])
    expect(text).toMatch(new RegExp(`^${name} \\d[^\\n]*\\([^)]+\\)\\n\\n\\S`, 'm'));
  expect(text).toContain('SIL OPEN FONT LICENSE');
  expect(text).toContain('Mozilla Public License');
  expect(text).not.toContain('no licence is stated');
  // The runtime of pages that play effects has nothing of the interface.
  expect(noticesOf(['player'])).not.toContain('ant-design-vue');
});
