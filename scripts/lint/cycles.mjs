// Which files import each other in a circle, types included: none may, in any workspace.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';

const SKIPPED = new Set(['node_modules', 'dist', 'data', 'assembly', 'test-results']);

function filesIn(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const file = path.join(folder, entry.name);
    if (entry.isDirectory()) return SKIPPED.has(entry.name) || entry.name.startsWith('.') ? [] : filesIn(file);
    return /\.(ts|mts|mjs|vue)$/.test(entry.name) && !entry.name.endsWith('.d.mts') ? [file] : [];
  });
}

/** The script of a file: of a .vue file what stands in its script tags. */
function scriptOf(file) {
  const text = readFileSync(file, 'utf8');
  if (!file.endsWith('.vue')) return text;
  return [...text.matchAll(/<script[^>]*>([\s\S]*?)<\/script>/g)].map(([, script]) => script).join('\n');
}

/** The file that an import leads to; null of a package from outside. */
export function resolveImport(specifier, file, root) {
  let target;
  if (specifier.startsWith('@jinx/')) target = path.join(root, ...specifier.split('/').slice(1));
  else if (specifier.startsWith('.')) target = path.resolve(path.dirname(file), specifier);
  else return null;
  const found = [target, `${target}.ts`, `${target}.vue`, path.join(target, 'index.ts')].find(
    (each) => existsSync(each) && path.extname(each) !== '',
  );
  return found ?? null;
}

/** What each file under some folders imports, type imports and imports when needed included. */
export function importGraph(root, folders) {
  const graph = new Map();
  for (const file of folders.flatMap((folder) => filesIn(path.join(root, folder)))) {
    const { importedFiles } = ts.preProcessFile(scriptOf(file), true, true);
    const targets = importedFiles.map(({ fileName }) => resolveImport(fileName, file, root));
    graph.set(file, new Set(targets.filter((target) => target !== null && target !== file)));
  }
  return graph;
}

/** Groups of files of which each leads to each other one (Tarjan, 1972), as a map from file to its group. */
export function findCycles(graph) {
  const order = new Map();
  const lowest = new Map();
  const stack = [];
  const groups = new Map();
  const visit = (file) => {
    order.set(file, order.size);
    lowest.set(file, order.get(file));
    stack.push(file);
    for (const next of graph.get(file) ?? []) {
      if (!order.has(next)) visit(next);
      if (stack.includes(next)) lowest.set(file, Math.min(lowest.get(file), lowest.get(next)));
    }
    if (lowest.get(file) !== order.get(file)) return;
    const group = stack.splice(stack.indexOf(file));
    if (group.length > 1) for (const each of group) groups.set(each, group);
  };
  for (const file of graph.keys()) if (!order.has(file)) visit(file);
  return groups;
}

/** The rule: an import may not lead into a circle. The graph of all files is made once, when the first file is checked. */
export function cyclesRule(root, folders) {
  let groups = null;
  return {
    meta: { type: 'problem', schema: [] },
    create(context) {
      groups ??= findCycles(importGraph(root, folders));
      const group = groups.get(context.filename);
      if (!group) return {};
      const check = ({ source }) => {
        const target = source && resolveImport(String(source.value), context.filename, root);
        if (!target || target === context.filename || !group.includes(target)) return;
        const names = group.map((file) => path.relative(root, file)).sort();
        context.report({
          node: source,
          message: `this import leads in a circle of ${names.length}: ${names.join(', ')}`,
        });
      };
      return {
        ImportDeclaration: check,
        ExportNamedDeclaration: check,
        ExportAllDeclaration: check,
        ImportExpression: check,
      };
    },
  };
}
