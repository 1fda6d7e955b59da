// Writes the player as a package, `player/dist/`: one ES module with its worker and kernels inside, types, and what npm
// wants to know. `npm pack player/dist` makes the tarball.
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { build } from 'esbuild';
import ts from 'typescript';
import { ROOT } from '../shell.mjs';
import { noticesOf } from './notices.mjs';

const OUT = path.join(ROOT, 'player/dist');
const SHARED = {
  bundle: true,
  write: false,
  format: 'esm',
  target: 'es2022',
  minify: true,
  legalComments: 'none',
  // What a library would ask Node for, and never does in a browser.
  external: ['node:*'],
  loader: { '.wasm': 'binary' },
};

const textOf = ({ outputFiles: [file] }) => file.text;

/** The code of a file with everything it uses, in which `player/workerCode.ts` is the code of the worker. */
async function bundle(file, worker = null, peers = []) {
  const inside = {
    name: 'worker-inside',
    setup: ({ onLoad }) =>
      onLoad({ filter: /player[\\/]workerCode\.ts$/ }, () => ({ contents: worker, loader: 'text' })),
  };
  // A worker that is no module also runs in a page that was opened from disk.
  const own = worker === null ? { format: 'iife' } : { plugins: [inside] };
  const external = [...SHARED.external, ...peers];
  return textOf(await build({ ...SHARED, ...own, external, entryPoints: [path.join(ROOT, file)] }));
}

/** Declarations of one file, which may use only others that are declared here. */
const declared = (file) =>
  ts
    .transpileDeclaration(readFileSync(path.join(ROOT, file), 'utf8'), { compilerOptions: { strict: true } })
    .outputText.replaceAll(".ts'", ".js'");

const TYPES = [
  'api',
  'index',
  'canvas/createPlayer',
  'canvas/element',
  'inScene/api',
  'inScene/index',
  'inScene/createSceneEffects',
];

const THREE_RANGE = '>=0.180.0 <0.188.0';

/** Code as it may stand in a page: what would end its element is written in another way. */
const inPage = (code) => code.replaceAll(/<(?=\/script|!--)/gi, '\\x3c');

export async function buildPlayer() {
  const worker = await bundle('player/runtime/worker.ts');
  const script = await bundle('player/index.ts', worker);
  const sceneScript = await bundle('player/inScene/index.ts', await bundle('player/runtime/sceneWorker.ts'), [
    'three',
  ]);
  const pageScript = await bundle('player/page/page.ts', worker);
  rmSync(OUT, { recursive: true, force: true });
  const write = (name, text) => {
    mkdirSync(path.dirname(path.join(OUT, name)), { recursive: true });
    writeFileSync(path.join(OUT, name), text);
  };
  write('player.js', script);
  write('scene.js', sceneScript);
  const page = readFileSync(path.join(ROOT, 'player/page/page.html'), 'utf8');
  write(
    'page.html',
    page.replace('%SCRIPT%', () => inPage(pageScript)),
  );
  for (const name of TYPES) write(`types/${name}.d.ts`, declared(`player/${name}.ts`));
  const { version } = JSON.parse(readFileSync(path.join(ROOT, 'package.json'), 'utf8'));
  const said = {
    name: '@jinx/player',
    version,
    description: 'Plays combat effects of Jinx parcels in a web page',
    license: 'MIT',
    type: 'module',
    exports: {
      '.': { types: './types/index.d.ts', import: './player.js' },
      './scene': { types: './types/inScene/index.d.ts', import: './scene.js' },
    },
    files: ['player.js', 'scene.js', 'types', 'README.md', 'notices.txt'],
    // Only effects in a scene of one's own need it; shaders are written for what these versions give them.
    peerDependencies: { three: THREE_RANGE },
    peerDependenciesMeta: { three: { optional: true } },
  };
  write('package.json', `${JSON.stringify(said, null, 2)}\n`);
  write('notices.txt', noticesOf(['player', 'stage', 'core']));
  write('README.md', readFileSync(path.join(ROOT, 'docs/player.md'), 'utf8'));
}

if (import.meta.url === `file://${process.argv[1]}`) await buildPlayer();
