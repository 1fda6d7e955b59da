import { LAYER_SETTINGS, listed } from '@jinx/core/document';
import { KINDS } from '../../../core/testing/kindsOfFaults';
import { KIT_FIGURES, KIT_PICTURES, KIT_PROPS, makeKit, STARTS } from '@jinx/demo';
import { describe, expect, it } from 'vitest';
import { layersOf, withoutLayers } from './layersOf';
import { anchorAmong, headingsOf, PAGES, pageOf, START_PAGES } from './pages';
import { render } from './render';
import { anchorOf, SETTINGS_TABLES } from './settingsTables';
import { words } from './words';

describe('the guide', () => {
  it('has a page for each starting point, which tells of its layers and no others', async () => {
    await makeKit();
    const kit = Object.fromEntries(
      [...KIT_FIGURES, ...KIT_PROPS, ...KIT_PICTURES].map((file) => [file.replace(/\.\w+$/, ''), '0'.repeat(64)]),
    );
    for (const { id, make } of STARTS) {
      const { text } = pageOf(START_PAGES + id);
      const names = listed(make(kit).layers).map(({ item }) => item.name);
      expect(
        layersOf(text).map(({ name }) => name),
        id,
      ).toEqual(names);
      expect(text).toMatch(/^## Steps$\n\n1\. /m);
      expect(withoutLayers(text)).not.toContain('Without it');
    }
    expect(PAGES.filter(({ id }) => id.startsWith(START_PAGES))).toHaveLength(STARTS.length);
  });

  it('tells cause and remedy of every kind of finding', () => {
    const findings = pageOf('findings');
    const headings = headingsOf(findings);
    expect(KINDS.length).toBeGreaterThan(25);
    for (const { id, name } of KINDS) expect(anchorAmong(headings, `motes/${id}`), name).not.toBeNull();
    expect(anchorAmong(headings, 'a1/pop0')).toBe('pop');
    for (const section of findings.text.split(/^## /m).slice(1))
      expect(section).toMatch(/\n\nCause: [^\n]+\n\nRemedy: [^\n]+/);
  });

  it('lists every setting once, and knows where it tells of each', () => {
    const all = SETTINGS_TABLES.flatMap(({ table, settings }) => settings.map(([name]) => anchorOf(table, name)));
    expect(all.length).toBeGreaterThan(300);
    expect(new Set(all).size).toBe(all.length);
    expect(all).not.toContain(null);
    expect(anchorOf(LAYER_SETTINGS, 'births.rate')).toBe('births:births.rate');
    expect(words().find(({ ours }) => ours === 'rate')?.others).toContain('spawn rate');
  });

  it('leads only to pages that are there, and shows our own anchors and no HTML', () => {
    const ids = new Set(PAGES.map(({ id }) => id));
    for (const { text } of PAGES)
      for (const [, page] of render(text).matchAll(/data-guide="([^"#]+)/g)) expect(ids).toContain(page);
    expect(render('## A heading {#here}\n\n<b>no</b> [Findings](findings#faint) [Film](docs/film.md)')).toBe(
      '<h2 id="here">A heading</h2>\n<p>&lt;b&gt;no&lt;/b&gt; <a href="/help/findings#faint" data-guide="findings#faint">Findings</a> <a class="elsewhere" role="note">Film</a></p>\n',
    );
    expect(pageOf('first-ten-minutes').text).toMatch(/^# The first ten minutes\n\n1\. Open the address/);
  });
});
