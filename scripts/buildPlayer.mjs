// Writes the player as a package, `player/dist/`: one ES module with its worker and kernels inside, types, and what npm
// wants to know. `npm pack player/dist` makes the tarball.
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { build } from 'esbuild';
import ts from 'typescript';
import { ROOT } from './shell.mjs';

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

/** The code of a file with everything it uses, in which `jinx:worker` is the code of the worker. */
async function bundle(file, worker) {
  const inside = {
    name: 'worker-inside',
    setup: ({ onResolve, onLoad }) => {
      onResolve({ filter: /^jinx:worker$/ }, ({ path: name }) => ({ path: name, namespace: 'worker' }));
      onLoad({ filter: /.*/, namespace: 'worker' }, () => ({ contents: worker, loader: 'text' }));
    },
  };
  return textOf(await build({ ...SHARED, entryPoints: [path.join(ROOT, file)], plugins: worker ? [inside] : [] }));
}

/** Declarations of one file, which may use only others that are declared here. */
const declared = (file) =>
  ts
    .transpileDeclaration(readFileSync(path.join(ROOT, file), 'utf8'), { compilerOptions: { strict: true } })
    .outputText.replaceAll(".ts'", ".js'");

const TYPES = ['api', 'index', 'canvas/createPlayer', 'canvas/element'];

/** The script of the player, as a page loads it. */
export async function playerScript() {
  return bundle('player/index.ts', await bundle('player/runtime/worker.ts'));
}

export async function buildPlayer() {
  const script = await playerScript();
  rmSync(OUT, { recursive: true, force: true });
  const write = (name, text) => {
    mkdirSync(path.dirname(path.join(OUT, name)), { recursive: true });
    writeFileSync(path.join(OUT, name), text);
  };
  write('player.js', script);
  for (const name of TYPES) write(`types/${name}.d.ts`, declared(`player/${name}.ts`));
  const { version } = JSON.parse(readFileSync(path.join(ROOT, 'package.json'), 'utf8'));
  const said = {
    name: '@jinx/player',
    version,
    description: 'Plays combat effects of Jinx parcels in a web page',
    type: 'module',
    exports: { '.': { types: './types/index.d.ts', import: './player.js' } },
    files: ['player.js', 'types', 'README.md'],
  };
  write('package.json', `${JSON.stringify(said, null, 2)}\n`);
  write('README.md', readFileSync(path.join(ROOT, 'docs/player.md'), 'utf8'));
}

if (import.meta.url === `file://${process.argv[1]}`) await buildPlayer();
