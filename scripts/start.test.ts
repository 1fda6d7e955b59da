import { spawn } from 'node:child_process';
import { chownSync, existsSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { isListening, mustOwn } from './shell.mjs';
import { differences, portForWeb, runningServer, settingsIn } from './start.mjs';

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
    const state = { pid: server.pid, port: 7411, sources: 'x', settings: {} };
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

  it('is not taken for that of another folder', async () => {
    const other = spawn(process.execPath, ['-e', 'setTimeout(() => {}, 20_000)', 'scripts/supervisor.mjs'], {
      cwd: folder,
    });
    await new Promise((started) => other.once('spawn', started));
    writeFileSync(file, JSON.stringify({ pid: other.pid, port: 7411 }));
    expect(runningServer(file)).toBeNull();
    other.kill();
  });

  it.each(['', '{', '[]', '{"pid":"x"}'])('is none where its file is broken: %s', (text) => {
    writeFileSync(file, text);
    expect(runningServer(file)).toBeNull();
    expect(existsSync(file)).toBe(false);
  });

  it('is none where nothing was started', () => expect(runningServer(file)).toBeNull());
});

describe('settings', () => {
  it('are what the environment says of Jinx, without what holds a password or is for tests', () => {
    const environment = { JINX_PORT: '7500', JINX_HOST: ' ', JINX_DATABASE_URL: 'x', JINX_TEST_PORT: '1', HOME: '/' };
    expect(settingsIn(environment)).toEqual({ JINX_PORT: '7500' });
  });

  it('that differ are told a line each', () => {
    expect(
      differences({ JINX_PORT: '1', JINX_HOST: 'a' }, { JINX_PORT: '2', JINX_HOST: 'a', JINX_SIGN_IN: 'on' }),
    ).toEqual(['  JINX_PORT: runs with 1, asked for 2', '  JINX_SIGN_IN: runs with the default, asked for on']);
  });

  it('are refused in a sentence where a port is none', () => {
    for (const wrong of ['abc', '0', '70000', '-1', '7e3']) {
      process.env['JINX_PORT'] = wrong;
      expect(portForWeb, wrong).toThrow(/JINX_PORT is the number of a port/);
    }
    delete process.env['JINX_PORT'];
    expect(portForWeb()).toBe(7411);
  });
});

describe.skipIf(process.getuid!() !== 0)('what belongs to another user', () => {
  it('is refused to root in a sentence, and keeps its owner', () => {
    chownSync(folder, 65534, 65534);
    expect(() => mustOwn(folder)).toThrow(/belongs to nobody.*run it as nobody.*Nothing was changed/);
    expect(statSync(folder).uid).toBe(65534);
  });
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
