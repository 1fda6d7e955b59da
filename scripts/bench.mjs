import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { build } from './build.mjs';
import { ensureBrowser, ensurePackages } from './install.mjs';
import { ROOT, Sentence } from './shell.mjs';

export function run([name, ...rest]) {
  const folder = path.join(ROOT, 'benchmarks');
  const names = readdirSync(folder)
    .filter((file) => file.endsWith('.bench.ts'))
    .map((file) => file.slice(0, -'.bench.ts'.length));
  if (!name || !existsSync(path.join(folder, `${name}.bench.ts`)))
    throw new Sentence(`Which benchmark? One of: ${names.join(', ')}.`);
  ensurePackages();
  ensureBrowser();
  build();
  return (
    spawnSync(process.execPath, ['--import', 'tsx', path.join(folder, `${name}.bench.ts`), ...rest], {
      cwd: ROOT,
      stdio: 'inherit',
    }).status ?? 1
  );
}
