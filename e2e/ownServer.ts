import { spawn, type ChildProcess } from 'node:child_process';
import { openSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import pg from 'pg';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** A server of a test's own, on a database of its own, that may be killed and started again. */
export class OwnServer {
  readonly address: string;
  readonly #port: number;
  readonly #database: string;
  #child: ChildProcess | null = null;

  constructor(port: number) {
    this.#port = port;
    this.address = `http://localhost:${port}`;
    const url = process.env['JINX_TEST_DATABASE_URL'];
    if (!url) throw new Error('JINX_TEST_DATABASE_URL is not set: ./jinx test sets it');
    this.#database = url.replace(/\/\w+$/, '/jinx_own_server');
  }

  /** Makes its database anew. */
  async prepare(): Promise<void> {
    const admin = new pg.Client({ connectionString: process.env['JINX_TEST_DATABASE_URL'] });
    await admin.connect();
    await admin.query('drop database if exists jinx_own_server with (force)');
    await admin.query('create database jinx_own_server');
    await admin.end();
  }

  async start(): Promise<void> {
    const log = openSync(`${ROOT}/data/logs/own-server.log`, 'a');
    this.#child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
      cwd: ROOT,
      stdio: ['ignore', log, log],
      env: { ...process.env, JINX_PORT: String(this.#port), JINX_DATABASE_URL: this.#database },
    });
    for (let tries = 0; tries < 400; tries++) {
      if ((await fetch(`${this.address}/api/health`).catch(() => null))?.ok) return;
      await new Promise((later) => setTimeout(later, 100));
    }
    throw new Error('the server of the test did not start: data/logs/own-server.log says why');
  }

  /** Ends it at once, whatever it is at. */
  async kill(): Promise<void> {
    const child = this.#child;
    this.#child = null;
    if (!child) return;
    const gone = new Promise((done) => child.once('exit', done));
    child.kill('SIGKILL');
    await gone;
  }
}
