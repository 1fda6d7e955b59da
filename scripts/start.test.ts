import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { isListening } from './shell.mjs';
import { runningServer } from './start.mjs';

let folder = '';
let file = '';
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'jinx-start-'));
  file = path.join(folder, 'server.json');
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

describe('the server that was started', () => {
  it('is found again while it runs', async () => {
    const server = spawn(process.execPath, ['-e', 'setTimeout(() => {}, 20_000)', 'server/main.ts']);
    await new Promise((started) => server.once('spawn', started));
    const state = { pid: server.pid, port: 7411, sources: 'x' };
    writeFileSync(file, JSON.stringify(state));
    await expect.poll(() => runningServer(file)).toEqual(state);
    server.kill();
    await new Promise((ended) => server.once('exit', ended));
    expect(runningServer(file)).toBeNull();
  });

  it('is not taken for another program that was given its number: stopping must not end that', () => {
    writeFileSync(file, JSON.stringify({ pid: process.pid, port: 7411 }));
    expect(runningServer(file)).toBeNull();
    expect(existsSync(file)).toBe(false);
  });

  it('is none where nothing was started', () => expect(runningServer(file)).toBeNull());
});

describe('a port', () => {
  it('is known to be taken, and free again', async () => {
    const other = createServer().listen(0, '127.0.0.1');
    await new Promise((ready) => other.once('listening', ready));
    const { port } = other.address() as { port: number };
    expect(await isListening(port)).toBe(true);
    await new Promise((closed) => other.close(closed));
    expect(await isListening(port)).toBe(false);
  });
});
