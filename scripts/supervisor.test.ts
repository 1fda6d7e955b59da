import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { hasEnded, ROOT } from './shell.mjs';

describe.concurrent('a supervisor', () => {
  let folder = '';
  beforeAll(() => (folder = mkdtempSync(path.join(tmpdir(), 'jinx-supervisor-'))));
  afterAll(() => rmSync(folder, { recursive: true }));

  /** Supervises a program in place of the server. */
  const supervise = (
    name: string,
    program: string,
  ): { child: ChildProcess; log: string; ended: Promise<number | null> } => {
    const log = path.join(folder, `${name}.log`);
    const child = spawn(
      process.execPath,
      [path.join(ROOT, 'scripts/supervisor.mjs'), log, process.execPath, '-e', program],
      { stdio: 'ignore' },
    );
    return { child, log, ended: new Promise((done) => child.once('exit', (code) => done(code))) };
  };
  const told = (log: string): { msg: string }[] =>
    readFileSync(log, 'utf8')
      .split('\n')
      .filter((line) => line.startsWith('{'))
      .map((line) => JSON.parse(line) as { msg: string });

  it('starts a server again after 1, 2, 4 and 8 seconds, and gives up after five ends in a minute', async () => {
    const { log, ended } = supervise('falls', 'process.exit(3)');
    expect(await ended).toBe(1);
    const lines = told(log).map(({ msg }) => msg);
    expect(lines.slice(0, 4).map((line) => Number(/again in (\d+) s/.exec(line)?.[1]))).toEqual([1, 2, 4, 8]);
    expect(lines[4]).toContain('ended 5 times in a minute and is not started again');
    expect(statSync(log).mode & 0o077).toBe(0);
  });

  it('does not start a server again that says that this is of no use', async () => {
    const { log, ended } = supervise('useless', 'process.exit(78)');
    expect(await ended).toBe(78);
    expect(told(log)).toEqual([]);
  });

  it('ends its server when it is ended, also one that does not listen', async () => {
    const { child, log, ended } = supervise(
      'deaf',
      `process.on('SIGTERM', () => {}); setInterval(() => {}, 1000); console.log(process.pid)`,
    );
    await expect.poll(() => existsSync(log) && /^\d+$/m.test(readFileSync(log, 'utf8'))).toBe(true);
    const server = Number(/^\d+$/m.exec(readFileSync(log, 'utf8'))![0]);
    child.kill('SIGTERM');
    expect(await ended).toBe(0);
    expect(await hasEnded(server, 20_000)).toBe(true);
  });

  it('keeps its log short: what is longer is put aside', async () => {
    const line = `'x'.repeat(99_999)`;
    const { child, log, ended } = supervise(
      'talks',
      `let n = 0; setInterval(() => n++ < 130 && console.log(${line}), 5)`,
    );
    await expect.poll(() => existsSync(`${log}.1`)).toBe(true);
    child.kill('SIGTERM');
    await ended;
    expect(statSync(log).size).toBeLessThan(10 * 1024 * 1024);
  });
});
