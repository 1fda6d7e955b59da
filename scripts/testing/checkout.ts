import { spawn, spawnSync } from 'node:child_process';
import { chmodSync, cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ROOT } from '../shell.mjs';

export interface Outcome {
  readonly status: number | null;
  readonly stdout: string;
  readonly stderr: string;
}

/** What a folder has of its own; the rest is shared with this one. */
const OWN = ['jinx', 'scripts', 'package.json', 'package-lock.json'];

/**
 * A folder of Jinx with data of its own, so that its commands can be tried beside those of this one. Its name holds what a
 * shell would run.
 */
export class Checkout {
  readonly folder: string;
  readonly port: number;
  readonly databasePort: number;

  constructor(port: number, databasePort: number) {
    [this.port, this.databasePort] = [port, databasePort];
    const home = mkdtempSync(path.join(tmpdir(), 'jinx-checkout-'));
    // The user of the database must be let through.
    chmodSync(home, 0o755);
    this.folder = path.join(home, 'a $(touch hacked) `touch hacked`');
    mkdirSync(this.folder);
    for (const name of readdirSync(ROOT)) {
      const [from, to] = [path.join(ROOT, name), path.join(this.folder, name)];
      if (name === 'data' || name === '.git') continue;
      if (OWN.includes(name)) cpSync(from, to, { recursive: true });
      else symlinkSync(from, to);
    }
    // What is built is built.
    cpSync(path.join(ROOT, 'data/built'), path.join(this.folder, 'data/built'), { recursive: true });
  }

  get #environment(): NodeJS.ProcessEnv {
    return { ...process.env, JINX_PORT: String(this.port), JINX_DATABASE_PORT: String(this.databasePort) };
  }

  /** Runs a command to its end. */
  jinx(words: readonly string[], environment: Readonly<Record<string, string>> = {}): Outcome {
    return spawnSync(path.join(this.folder, 'jinx'), words, {
      encoding: 'utf8',
      env: { ...this.#environment, ...environment },
    });
  }

  /** Runs a command beside others. */
  begin(words: readonly string[]): Promise<Outcome> {
    const child = spawn(path.join(this.folder, 'jinx'), words, { env: this.#environment });
    let [stdout, stderr] = ['', ''];
    child.stdout.on('data', (part: Buffer) => (stdout += part.toString()));
    child.stderr.on('data', (part: Buffer) => (stderr += part.toString()));
    return new Promise((done) => child.once('close', (status) => done({ status, stdout, stderr })));
  }

  path(...names: string[]): string {
    return path.join(this.folder, ...names);
  }

  /** Whether the server answers; asked twice, for the first may go to a connection of a server that has ended. */
  async answers(): Promise<boolean> {
    const ask = () =>
      fetch(`http://127.0.0.1:${this.port}/api/ready`, { signal: AbortSignal.timeout(6000) }).catch(() => null);
    return ((await ask()) ?? (await ask()))?.ok ?? false;
  }

  /** Whether a shell ran what stands in the folder's name. */
  get isHacked(): boolean {
    return [this.folder, path.dirname(this.folder), process.cwd(), '/'].some((place) =>
      existsSync(path.join(place, 'hacked')),
    );
  }

  remove(): void {
    this.jinx(['stop']);
    rmSync(path.dirname(this.folder), { recursive: true, force: true });
  }
}
