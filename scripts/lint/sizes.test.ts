import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { ROOT } from '../shell.mjs';

const WORKSPACES = ['core', 'stage', 'player', 'web/src', 'server', 'demo', 'benchmarks', 'e2e', 'scripts'];
const MADE = /(^|\/)(node_modules|dist|generated|data|kit|kept|golden|test-results)(\/|$)/;
const IS_TEST = /\.(test|spec)\.ts$/;
/** Files that are as long as what they declare. */
const DECLARES = /declarations\/|demo\/effects\//;

const files = WORKSPACES.flatMap((workspace) =>
  readdirSync(path.join(ROOT, workspace), { recursive: true, encoding: 'utf8', withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => path.relative(ROOT, path.join(entry.parentPath, entry.name)))
    .filter((file) => !MADE.test(file)),
);

describe('the house stays readable', () => {
  it('no code file has over 400 lines, but declarations and demo effects', () => {
    const long = files
      .filter((file) => /\.(ts|vue|mjs|mts)$/.test(file) && !DECLARES.test(file))
      .map((file) => [file, readFileSync(path.join(ROOT, file), 'utf8').split('\n').length - 1] as const)
      .filter(([, lines]) => lines > 400);
    expect(files.length).toBeGreaterThan(500);
    expect(long).toEqual([]);
  });

  it('no folder has over 25 files, tests not counted', () => {
    const counts = new Map<string, number>();
    for (const file of files)
      if (!IS_TEST.test(file)) counts.set(path.dirname(file), (counts.get(path.dirname(file)) ?? 0) + 1);
    expect([...counts].filter(([, count]) => count > 25)).toEqual([]);
  });
});
