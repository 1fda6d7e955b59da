import { spawn, type ChildProcess } from 'node:child_process';
import { mkdirSync, openSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));

/** A server in a process of its own, that may be killed and started again. */
export class ServerProcess {
  readonly port: number;
  readonly #environment: Readonly<Record<string, string>>;
  #child: ChildProcess | null = null;

  constructor(port: number, databaseUrl: string, environment: Readonly<Record<string, string>> = {}) {
    this.port = port;
    this.#environment = {
      JINX_PORT: String(port),
      JINX_DATABASE_URL: databaseUrl,
      JINX_COSTLY_A_MINUTE: '1000000',
      JINX_CONNECTIONS: '1000',
      JINX_CONNECTIONS_AN_ADDRESS: '1000',
      ...environment,
    };
  }
  get address(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  get pid(): number {
    return this.#child?.pid ?? 0;
  }

  /** Starts it, and waits until it answers. */
  async start(): Promise<void> {
    mkdirSync(`${ROOT}/data/logs`, { recursive: true });
    const log = openSync(`${ROOT}/data/logs/killed-server.log`, 'a');
    this.#child = spawn(process.execPath, ['server/dist/main.mjs'], {
      cwd: ROOT,
      stdio: ['ignore', log, log],
      env: { ...process.env, ...this.#environment },
    });
    await this.answers();
  }

  /** Waits until it answers. @throws Error when it has ended instead. */
  async answers(): Promise<void> {
    for (let tries = 0; tries < 1200 && this.#child?.exitCode === null; tries++) {
      if ((await fetch(`${this.address}/api/ready`).catch(() => null))?.ok) return;
      await new Promise((later) => setTimeout(later, 50));
    }
    throw new Error('the server does not answer: data/logs/killed-server.log says why');
  }

  /** Ends it at once, whatever it is at. */
  async kill(): Promise<void> {
    const child = this.#child;
    this.#child = null;
    // One that has ended by itself tells of it no more.
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((done) => child.once('exit', done));
    child.kill('SIGKILL');
    await gone;
  }
}
