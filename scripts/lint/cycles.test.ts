import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { findCycles, importGraph } from './cycles.mjs';

let root: string;
beforeEach(() => (root = mkdtempSync(path.join(tmpdir(), 'jinx-cycles-'))));
afterEach(() => rmSync(root, { recursive: true }));

function circlesOf(files: Record<string, string>): string[][] {
  for (const [name, text] of Object.entries(files)) {
    mkdirSync(path.dirname(path.join(root, name)), { recursive: true });
    writeFileSync(path.join(root, name), text);
  }
  const groups = new Set(findCycles(importGraph(root, ['core', 'web'])).values());
  return [...groups].map((group) => group.map((file) => path.relative(root, file)).sort());
}

it('finds a circle of imports of types, of what is loaded when needed, and through a .vue file and a door', () => {
  expect(
    circlesOf({
      'core/maths/index.ts': `export * from './a.ts';`,
      'core/maths/a.ts': `import type { B } from './b.ts';`,
      'core/maths/b.ts': `/** A comment may say import { x } from './c.ts'. */ export type B = typeof import('./c.ts');`,
      'core/maths/c.ts': `import { x } from './a.ts';`,
      'web/Page.vue': `<script setup lang="ts">import Part from './Part.vue';</script><template />`,
      'web/Part.vue': `<script setup lang="ts">const page = () => import('./pages.ts');</script><template />`,
      'web/pages.ts': `import Page from './Page.vue'; import { x } from '@jinx/core/maths';`,
    }),
  ).toEqual([
    ['core/maths/a.ts', 'core/maths/b.ts', 'core/maths/c.ts'],
    ['web/Page.vue', 'web/Part.vue', 'web/pages.ts'],
  ]);
});

it('finds none where imports lead one way', () => {
  expect(
    circlesOf({
      'web/d.ts': `import { c } from '../core/c.ts';`,
      'core/a.ts': `import './b.ts'; import './c.ts';`,
      'core/b.ts': `import { c } from './c.ts';`,
      'core/c.ts': `export const c = 1;`,
    }),
  ).toEqual([]);
});
