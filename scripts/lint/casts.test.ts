import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, it } from 'vitest';
import { ROOT } from '../shell.mjs';

const FOLDERS = ['core', 'stage', 'player', 'web/src', 'server', 'demo', 'benchmarks', 'e2e', 'scripts'];
const isOurs = (file: string) => /\.(ts|vue)$/.test(file) && !/\.test\.ts$|(^|\/)(testing|dist)\//.test(file);

it('casts by way of unknown are few outside tests: settings are read through settingsByName', () => {
  const casts = FOLDERS.flatMap((folder) =>
    readdirSync(path.join(ROOT, folder), { recursive: true, encoding: 'utf8' })
      .filter(isOurs)
      .flatMap((file) => {
        const found = readFileSync(path.join(ROOT, folder, file), 'utf8').match(/\bas unknown as\b/g) ?? [];
        return found.map(() => `${folder}/${file}`);
      }),
  );
  expect(casts.length, casts.join('\n')).toBeLessThanOrEqual(25);
});
