import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';

const DOCS = path.resolve(import.meta.dirname, '../docs');
const text = readFileSync(path.join(DOCS, 'house.md'), 'utf8');

/** The links of one of its ways: each names a function and the file that has it. */
function linksOf(heading: string): { name: string; file: string }[] {
  const section = text.split(`## ${heading}\n`)[1]?.split('\n## ')[0] ?? '';
  return [...section.matchAll(/`(\w+)` in \[`[\w.]+`\]\(([^)]+)\)/g)].map(([, name = '', file = '']) => ({
    name,
    file,
  }));
}

describe.each(['From an edit to PostgreSQL', 'From a setting to a pixel'])('%s', (heading) => {
  const links = linksOf(heading);

  it('has ten links', () => expect(links.length).toBeGreaterThanOrEqual(10));

  it.each(links)('$name is in $file', ({ name, file }) => {
    const place = path.join(DOCS, file);
    expect(existsSync(place)).toBe(true);
    const declared = new RegExp(`(function\\*? |^ {2}(?:async )?|^ {2}readonly |const )${name}\\b *[(:=<]`, 'm');
    expect(readFileSync(place, 'utf8')).toMatch(declared);
  });
});
