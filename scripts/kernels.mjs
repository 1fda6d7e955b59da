// Makes what ties the kernels to their twins: the interpreter's switch in AssemblyScript, the table of calls, and the
// class by whose methods programs are written. A call is a function that stands under one name in a file of core/kernels/assembly/ and in the
// file of the same name in core/kernels/, its twin.
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { ROOT, Sentence } from './shell.mjs';

const KERNELS = path.join(ROOT, 'core', 'kernels');
const ASSEMBLY = path.join(KERNELS, 'assembly');
/** What the interpreter hands to every call that asks for it, before the call's own values. */
const GIVEN = { base: 'base', stride: 'stride', from: 'i', to: 'end', sums: 'sums' };
/** How a value of each type is read, and its letter in a signature. */
const TYPES = { usize: ['place', 'p'], i32: ['int', 'i'], f32: ['num', 'f'] };
/** The words of a call before its values: its number and its length. */
const HEAD = 2;

const named = (text) =>
  text
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => part.split(':').map((side) => side.trim()));

/** The functions of a file that take particles `from` to `to`, by name, with their parameters. */
function functionsIn(text, isOne) {
  const found = [...text.matchAll(/export function (\w+)\(([^)]*)\)/g)];
  return new Map(found.map(([, name, params]) => [name, named(params)]).filter(([, params]) => isOne(params)));
}

/** Every call: its name, its file, the parameters that are handed to it and those that a program gives. */
export function findCalls(folder = KERNELS) {
  const calls = [];
  const read = (...place) => readFileSync(path.join(folder, ...place), 'utf8');
  const twinFiles = new Set(readdirSync(folder));
  for (const file of readdirSync(path.join(folder, 'assembly')).sort()) {
    if (!file.endsWith('.ts') || !twinFiles.has(file)) continue;
    const kernels = functionsIn(read('assembly', file), (params) => params.some(([name]) => name === 'from'));
    const twins = functionsIn(read(file), ([first]) => first?.[0] === 'block');
    for (const [name, params] of kernels) {
      const twin = twins.get(name);
      if (!twin) continue;
      const values = params.filter(([param]) => !(param in GIVEN));
      if (values.length !== twin.length - 1)
        throw new Sentence(
          `${name} takes ${values.length} values in core/kernels/assembly/${file} and ${twin.length - 1} in its twin, core/kernels/${file}: they must be the same.`,
        );
      calls.push({ name, file, given: params.filter(([param]) => param in GIVEN), values });
    }
  }
  return calls.sort((a, b) => (a.name < b.name ? -1 : 1));
}

const importsOf = (calls, from, ending) =>
  [...new Set(calls.map(({ file }) => file))]
    .sort()
    .map((file) => {
      const names = calls.filter((call) => call.file === file).map(({ name }) => name);
      return `import { ${names.join(', ')} } from '${from}${file.replace('.ts', ending)}';`;
    })
    .join('\n');

/** The interpreter's switch. */
export function switchOf(calls) {
  const cases = calls.map(({ name, given, values }, number) => {
    const handed = given.map(([param]) => GIVEN[param]);
    const read = values.map(([, type], n) => `${TYPES[type][0]}(${HEAD + n})`);
    return `    case ${number}: ${name}(${[...handed, ...read].join(', ')}); break;`;
  });
  return `// Made by scripts/kernels.mjs when Jinx is built; do not edit.
${importsOf(calls, '../', '')}
import { int, num, place } from '../words';

// @ts-ignore: decorator
@inline export function callKernel(call: i32, base: usize, stride: usize, i: i32, end: i32, sums: usize): void {
  switch (call) {
${cases.join('\n')}
  }
}
`;
}

/** How a parameter of a call is written, by what it is. */
const WRITTEN = { p: 'int', i: 'int', f: 'num' };

/**
 * The parameters of the method that writes a call. An address with whether each particle has its own (`spin`, `spinEach`) is
 * one value; x, y and z are three numbers, also behind a name (`axisX`, `axisY`, `axisZ` are `axis`).
 */
function parametersOf(values) {
  const found = [];
  for (let n = 0; n < values.length; n++) {
    const [name, type] = values[n];
    const letter = TYPES[type][1];
    const [second, third] = [values[n + 1], values[n + 2]];
    const before = /^(.*)[xX]$/.exec(name)?.[1];
    const isAxis = (value, axis) =>
      value?.[1] === type && value[0].toLowerCase() === `${before}${axis}`.toLowerCase();
    if (letter === 'p' && second?.[1] === 'i32' && /^(each|.*Each)$/.test(second[0])) {
      found.push({ name, type: 'Value', words: 2, write: 'value' });
      n++;
    } else if (before !== undefined && isAxis(second, 'y') && isAxis(third, 'z')) {
      found.push({ name: before || 'xyz', type: 'Three', words: 3, write: `${WRITTEN[letter]}s` });
      n += 2;
    } else found.push({ name, type: 'number', words: 1, write: WRITTEN[letter] });
  }
  return found;
}

function methodOf({ name, values }, number) {
  const parameters = parametersOf(values);
  const words = parameters.reduce((sum, parameter) => sum + parameter.words, 0);
  return `  ${name}(${parameters.map((parameter) => `${parameter.name}: ${parameter.type}`).join(', ')}): void {
    this.begin(${number}, ${words});
${parameters.map((parameter) => `    this.${parameter.write}(${parameter.name});`).join('\n')}
  }`;
}

/** The table of calls, by their numbers, and the class that writes them, a method each. */
export function tableOf(calls) {
  const rows = calls.map(
    ({ name, values }) => `  ['${name}', '${values.map(([, type]) => TYPES[type][1]).join('')}', ${name}],`,
  );
  return `// Made by scripts/kernels.mjs when Jinx is built; do not edit.
${importsOf(calls, '../', '.ts')}
import { ProgramWords, type Three, type Value } from '../programWords.ts';

/** What a program may call: its name, what each of its values is, and its twin. */
export const CALLS = [
${rows.join('\n')}
] as const;

/** Writes a program. */
export class ProgramWriter extends ProgramWords {
${calls.map(methodOf).join('\n')}
}
`;
}

/** Writes both files. */
export function generateCalls() {
  const calls = findCalls();
  for (const folder of [path.join(KERNELS, 'generated'), path.join(ASSEMBLY, 'generated')])
    mkdirSync(folder, { recursive: true });
  writeFileSync(path.join(KERNELS, 'generated', 'calls.ts'), tableOf(calls));
  writeFileSync(path.join(ASSEMBLY, 'generated', 'calls.ts'), switchOf(calls));
}
