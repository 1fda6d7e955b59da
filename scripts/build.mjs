// Builds what changed: kernels, the Fenlight kit, the web application.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { generateCalls } from './kernels.mjs';
import { bin, DATA, must, ROOT } from './shell.mjs';

const log = path.join(DATA, 'logs', 'build.log');
const SKIPPED = new Set(['node_modules', 'dist', 'kit', 'data', 'generated']);

/** A hash of all sources in these folders, wherever this folder lies. */
export function fingerprint(folders) {
  const hash = createHash('sha256');
  const visit = (place) => {
    if (statSync(place).isFile()) {
      if (!/\.test\.ts$|\.wasm$/.test(place)) hash.update(path.relative(ROOT, place)).update(readFileSync(place));
      return;
    }
    for (const name of readdirSync(place).sort()) if (!SKIPPED.has(name)) visit(path.join(place, name));
  };
  for (const folder of folders) visit(path.join(ROOT, folder));
  return hash.digest('hex');
}

function whenChanged(name, sources, results, build) {
  const stamp = path.join(DATA, 'built', name);
  const wanted = fingerprint(sources);
  const isThere = results.every((result) => existsSync(path.join(ROOT, result)));
  if (isThere && existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.log(`Building ${name}.`);
  build();
  mkdirSync(path.dirname(stamp), { recursive: true });
  writeFileSync(stamp, wanted);
}

function buildKernels() {
  generateCalls();
  const common = [
    'core/kernels/assembly/index.ts',
    '-O3',
    '--noAssert',
    '--runtime',
    'stub',
    '--enable',
    'simd',
    '--importMemory',
    '--use',
    'abort=',
  ];
  const shared = ['--enable', 'threads', '--sharedMemory', '--initialMemory', '1', '--maximumMemory', '65536'];
  must(bin('asc'), [...common, '-o', 'core/kernels/plain.wasm'], {
    log,
    otherwise: 'the kernels could not be built',
  });
  must(bin('asc'), [...common, ...shared, '-o', 'core/kernels/shared.wasm'], {
    log,
    otherwise: 'the kernels could not be built',
  });
}

/** The server, as the commands start it. */
export function buildServer() {
  const sources = ['server', 'core', 'demo', 'scripts/bundles/server.mjs'];
  whenChanged('the server', sources, ['server/dist/main.mjs'], () =>
    must(process.execPath, ['scripts/bundles/server.mjs'], { log, otherwise: 'the server could not be built' }),
  );
}

/** The kernels and the Fenlight kit: what the sources need to run as they are. */
export function buildKernelsAndKit() {
  const made = ['plain.wasm', 'shared.wasm', 'generated/calls.ts', 'assembly/generated/calls.ts'];
  whenChanged(
    'kernels',
    ['core/kernels', 'scripts/kernels.mjs'],
    made.map((file) => `core/kernels/${file}`),
    buildKernels,
  );
  whenChanged(
    'the Fenlight kit',
    ['demo', 'core/maths'],
    ['sedge', 'tallow', 'bogling'].map((name) => `demo/kit/${name}.glb`),
    () => must(bin('tsx'), ['demo/make.ts'], { log, otherwise: 'the Fenlight kit could not be made' }),
  );
}

/** The player as a package, from which pages are made that play effects. */
export function buildPlayer() {
  whenChanged(
    'the player',
    ['player', 'stage', 'core', 'scripts/bundles', 'docs/player.md', 'LICENSE'],
    ['player/dist/player.js'],
    () => must(process.execPath, ['scripts/bundles/player.mjs'], { log, otherwise: 'the player could not be built' }),
  );
}

export function build() {
  buildKernelsAndKit();
  buildServer();
  buildPlayer();
  whenChanged(
    'the application',
    [
      'web',
      'stage',
      'player',
      'core',
      'demo/effects',
      'docs/guide',
      'README.md',
      'scripts/bundles/notices.mjs',
      'scripts/bundles/compress.mjs',
      'LICENSE',
    ],
    ['web/dist/index.html', 'web/dist/notices.txt'],
    () => {
      must(bin('vite'), ['build', 'web', '--logLevel', 'warn'], {
        log,
        otherwise: 'the application could not be built',
      });
      must(process.execPath, ['scripts/bundles/notices.mjs', 'web/dist', 'web', 'stage', 'player', 'core'], {
        log,
        otherwise: 'the notices could not be written',
      });
      must(process.execPath, ['scripts/bundles/compress.mjs', 'web/dist'], {
        log,
        otherwise: 'the application could not be compressed',
      });
    },
  );
}
