// Installs what is missing: Debian packages and npm packages. Does nothing when all is there.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { DATA, isRoot, must, ROOT, Sentence } from './shell.mjs';

const log = path.join(DATA, 'logs', 'install.log');

function aptInstall(packages, why) {
  console.log(`Installing ${packages.join(', ')} from Debian (${why}).`);
  // Without a terminal nobody could type a password.
  const prefix = isRoot() ? [] : process.stdin.isTTY ? ['sudo'] : ['sudo', '-n'];
  const apt = (...args) =>
    must([...prefix, 'apt-get', ...args][0], [...prefix, 'apt-get', ...args].slice(1), {
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      log,
      otherwise: `${packages.join(', ')} could not be installed: run "sudo apt-get update && sudo apt-get install ${packages.join(' ')}" and try again`,
    });
  apt('update');
  apt('install', '-y', '--no-install-recommends', ...packages);
}

/** Folder of PostgreSQL's server programs; installs them first where they are missing. */
export function postgresPrograms() {
  const find = () => {
    const base = '/usr/lib/postgresql';
    const versions = existsSync(base) ? readdirSync(base).sort((a, b) => Number(b) - Number(a)) : [];
    return versions
      .map((version) => path.join(base, version, 'bin'))
      .find((folder) => existsSync(path.join(folder, 'initdb')));
  };
  if (!find()) aptInstall(['postgresql'], 'the database');
  const found = find();
  if (!found) throw new Sentence('PostgreSQL was installed, but its programs are not under /usr/lib/postgresql.');
  return found;
}

/** Chromium, and Mesa's libraries that let it draw without a graphics card. */
export function ensureBrowser() {
  const libraries = ['/usr/share/glvnd/egl_vendor.d/50_mesa.json'];
  if (existsSync('/usr/bin/chromium') && libraries.every(existsSync)) return;
  aptInstall(
    ['chromium', 'libegl1', 'libegl-mesa0', 'libgl1-mesa-dri', 'fonts-dejavu-core'],
    'the browser for the tests',
  );
}

/** Programs of others by which tests read pictures and films. */
export function ensureReaders() {
  if (['ffmpeg', 'exrmaketiled'].every((program) => existsSync(`/usr/bin/${program}`))) return;
  aptInstall(['ffmpeg', 'openexr'], 'for tests to read pictures and films with');
}

/** npm packages, by the lock file. */
export function ensurePackages() {
  const stamp = path.join(ROOT, 'node_modules', '.jinx-lock');
  const wanted = createHash('sha256')
    .update(readFileSync(path.join(ROOT, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.log('Installing npm packages.');
  mkdirSync(DATA, { recursive: true });
  must('npm', ['ci', '--no-audit', '--no-fund'], {
    log,
    otherwise: 'npm ci failed: check that the npm registry can be reached',
  });
  writeFileSync(stamp, wanted);
}
