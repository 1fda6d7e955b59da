// Writes what others wrote of what is shipped, with their licences, as one text: `node scripts/bundles/notices.mjs web/dist
// web stage player core` for the application.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { ROOT } from '../shell.mjs';

const read = (file) => JSON.parse(readFileSync(path.join(ROOT, file), 'utf8'));

/** Where a package lies that another one uses: beside it, or further up. */
function placeOf(name, from) {
  for (let at = from; ; at = at.slice(0, Math.max(0, at.lastIndexOf('node_modules') - 1))) {
    const place = path.posix.join(at, 'node_modules', name);
    if (existsSync(path.join(ROOT, place))) return place;
    if (at === '') return null;
  }
}

/** The packages that workspaces use, and those that these use, by where they lie. */
function packagesOf(workspaces) {
  const found = new Map();
  const waiting = workspaces.map((workspace) => [workspace, read(`${workspace}/package.json`)]);
  for (const [from, { dependencies = {} }] of waiting)
    for (const name of Object.keys(dependencies)) {
      const place = placeOf(name, from);
      if (place === null || name.startsWith('@jinx/') || found.has(place)) continue;
      const described = read(`${place}/package.json`);
      found.set(place, described);
      waiting.push([place, described]);
    }
  return [...found].sort(([a], [b]) => (a < b ? -1 : 1));
}

/** The licence that lies in a package, as it was written; else its name. */
function licenceText(place, { license = 'no licence is stated' }) {
  const file = readdirSync(path.join(ROOT, place)).find((name) => /^(licen[cs]e|copying|ofl)/i.test(name));
  return file ? readFileSync(path.join(ROOT, place, file), 'utf8').trim() : `Licence: ${license}`;
}

/** What is shipped of others, with the licences. */
export function noticesOf(workspaces) {
  const own = readFileSync(path.join(ROOT, 'LICENSE'), 'utf8').trim();
  const others = packagesOf(workspaces).map(([place, described]) =>
    [`${described.name} ${described.version} (${described.license})`, '', licenceText(place, described)].join('\n'),
  );
  return [`Jinx\n\n${own}`, ...others].join(`\n\n${'-'.repeat(60)}\n\n`) + '\n';
}

if (process.argv[1] === import.meta.filename) {
  const [into, ...workspaces] = process.argv.slice(2);
  writeFileSync(path.join(ROOT, into, 'notices.txt'), noticesOf(workspaces));
}
