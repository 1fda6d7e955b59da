// Rules of the house: which way imports may point, which packages they may name, which maths may reach simulation state, and
// that addresses of parts are typed.
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { cyclesRule } from './cycles.mjs';

const root = path.resolve(import.meta.dirname, '../..');

/** From the bottom up: a folder may import from itself and from what stands before it. */
const WORKSPACES = ['core', 'stage', 'player', 'demo', 'server', 'web', 'benchmarks', 'e2e'];
const FORBIDDEN = { web: ['server', 'demo'], server: ['stage', 'player'], demo: ['stage', 'player'] };
const FORCES = 'simulation/forces';
const SHAPES = 'simulation/shapes';
const CORE = [
  'settings',
  'maths',
  'kernels',
  FORCES,
  SHAPES,
  'document',
  'geometry',
  'simulation',
  'building',
  'editing',
  'checks',
  'makers',
  'formats',
  'answers',
  'testing',
];

/** The same within core/simulation. Kinds of force and shapes are known to the document too, so they stand below it. */
const SIMULATION = [
  'time',
  'values',
  'scene',
  'sources',
  'surfaces',
  'fronts',
  'looks',
  'compile',
  'run',
  'frames',
  'world',
];
/** The one file of compile/ that what runs may use: the types of its plans. */
const PLANS = 'plan.ts';

function placeOf(file) {
  const [workspace, folder, part, ...rest] = path.relative(root, file).split(path.sep);
  const below = [FORCES, SHAPES].find((known) => known === `${folder}/${part}`);
  if (workspace === 'core' && below) return { workspace, folder: below };
  return { workspace, folder, part: rest.length > 0 ? part : null, name: rest.at(-1) };
}

function targetOf(specifier, file) {
  if (specifier.startsWith('@jinx/')) {
    const [, workspace, folder] = specifier.split('/');
    return { workspace, folder, door: true };
  }
  if (!specifier.startsWith('.')) return null;
  const target = path.resolve(path.dirname(file), specifier);
  return { ...placeOf(target), door: path.basename(target) === 'index.ts' };
}

function withinSimulation(from, to) {
  const [own, other] = [from, to].map(({ part }) => SIMULATION.indexOf(part));
  if (own < 0 || other < 0 || from.part === to.part) return null;
  if (other > own) return `simulation/${from.part} may not use simulation/${to.part}`;
  const isRunning = from.part === 'run' || from.part === 'frames';
  return isRunning && to.part === 'compile' && to.name !== PLANS
    ? `simulation/${from.part} knows of what was compiled its plans alone, compile/${PLANS}`
    : null;
}

function complaint(from, to) {
  const rank = WORKSPACES.indexOf(from.workspace);
  if (rank < 0) return null;
  if (from.workspace !== to.workspace) {
    if (WORKSPACES.indexOf(to.workspace) > rank || FORBIDDEN[from.workspace]?.includes(to.workspace))
      return `${from.workspace}/ may not use ${to.workspace}/`;
    return null;
  }
  if (from.workspace !== 'core') return null;
  if (from.folder === to.folder) return from.folder === 'simulation' ? withinSimulation(from, to) : null;
  if (CORE.indexOf(to.folder) > CORE.indexOf(from.folder)) return `core/${from.folder} may not use core/${to.folder}`;
  return to.door ? null : `come into core/${to.folder} by its door, index.ts`;
}

const isTest = (file) => /\.(test|spec)\.ts$/.test(file) || file.includes(`${path.sep}testing${path.sep}`);

const direction = {
  meta: { type: 'problem', schema: [] },
  create(context) {
    const file = context.filename;
    const check = (node) => {
      const source = node.source;
      if (!source || isTest(file)) return;
      const to = targetOf(String(source.value), file);
      const message = to && complaint(placeOf(file), to);
      if (message) context.report({ node: source, message });
    };
    return { ImportDeclaration: check, ExportNamedDeclaration: check, ExportAllDeclaration: check };
  },
};

const packages = new Map();
/** The packages that a folder's package.json names. */
function namedBy(folder) {
  if (!packages.has(folder)) {
    const { dependencies, devDependencies } = JSON.parse(
      readFileSync(path.join(root, folder, 'package.json'), 'utf8'),
    );
    packages.set(folder, new Set([...Object.keys(dependencies ?? {}), ...Object.keys(devDependencies ?? {})]));
  }
  return packages.get(folder);
}

/** The package of an import; null of a file, and of what comes with Node. */
function packageOf(specifier) {
  if (/^(\.|\/|node:|virtual:)/.test(specifier)) return null;
  return specifier
    .split('/')
    .slice(0, specifier.startsWith('@') ? 2 : 1)
    .join('/');
}

const declared = {
  meta: { type: 'problem', schema: [] },
  create(context) {
    const file = context.filename;
    const { workspace } = placeOf(file);
    if (!WORKSPACES.includes(workspace)) return {};
    const check = ({ source }) => {
      const name = typeof source?.value === 'string' && packageOf(source.value);
      if (!name || name === `@jinx/${workspace}` || namedBy(workspace).has(name)) return;
      // The tools of all tests stand once, at the root; a test may look at what stands above its workspace.
      if (isTest(file) && (namedBy('.').has(name) || name.startsWith('@jinx/'))) return;
      context.report({ node: source, message: `${name} is not in ${workspace}/package.json` });
    };
    return {
      ImportDeclaration: check,
      ExportNamedDeclaration: check,
      ExportAllDeclaration: check,
      ImportExpression: check,
    };
  },
};

const SAFE_MATHS = new Set([
  'fround',
  'imul',
  'sqrt',
  'floor',
  'ceil',
  'trunc',
  'abs',
  'min',
  'max',
  'sign',
  'clz32',
  'PI',
]);

const sameBits = {
  meta: { type: 'problem', schema: [] },
  create(context) {
    return {
      MemberExpression(node) {
        if (node.object.type !== 'Identifier' || node.object.name !== 'Math' || node.property.type !== 'Identifier')
          return;
        if (!SAFE_MATHS.has(node.property.name))
          context.report({ node, message: `Math.${node.property.name} differs between engines: use core/maths` });
      },
      BinaryExpression(node) {
        if (node.operator === '**')
          context.report({ node, message: '** differs between engines: multiply, or use core/maths' });
      },
    };
  },
};

/** Where addresses of parts and settings are written and read. */
const ADDRESS = path.join(root, 'core', 'document', 'parts', 'address.ts');
const HAVE_ADDRESSES = ['core', 'stage', 'player', 'web'];
/** Methods that cut a text or look at its beginning, and the literals with which they would cut an address. */
const CUTTING = ['split', 'startsWith', 'indexOf', 'lastIndexOf'];
const isCut = (method, { value }) =>
  typeof value === 'string' && (method === 'split' ? value === '/' || value === ':' : /^[A-Za-z]+\/$/.test(value));

const addresses = {
  meta: { type: 'problem', schema: [] },
  create(context) {
    const file = context.filename;
    const { workspace } = placeOf(file);
    if (!HAVE_ADDRESSES.includes(workspace) || file === ADDRESS || isTest(file)) return {};
    return {
      CallExpression({ callee, arguments: [first] }) {
        if (callee.type !== 'MemberExpression' || callee.property.type !== 'Identifier') return;
        const method = callee.property.name;
        if (!CUTTING.includes(method) || first?.type !== 'Literal' || !isCut(method, first)) return;
        context.report({
          node: callee,
          message:
            'no address is cut out of a text: use PartAddress and parseAddress of core/document/parts/address.ts',
        });
      },
    };
  },
};

const cycles = cyclesRule(root, [...WORKSPACES, 'scripts']);

export const house = { rules: { direction, declared, 'same-bits': sameBits, addresses, cycles } };
