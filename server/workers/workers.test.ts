import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { encode } from 'fast-png';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { hashName } from '@jinx/core/formats';
import { Workers } from './workers.ts';

const log = pino({ level: 'silent' });
const codes = (outcomes: readonly PromiseSettledResult<unknown>[]) =>
  outcomes.map((one) => (one.status === 'fulfilled' ? 'taken' : (one.reason as { code: string }).code));

describe('work in threads', () => {
  let folder = '';
  const file = (name: string, bytes: Uint8Array | string) => {
    writeFileSync(path.join(folder, name), bytes);
    return { file: path.join(folder, name), name, folder };
  };
  beforeAll(() => (folder = mkdtempSync(path.join(tmpdir(), 'jinx-workers-'))));
  afterAll(() => rmSync(folder, { recursive: true }));
  const picture = () =>
    file('a.png', encode({ width: 2, height: 2, channels: 4, data: new Uint8Array(16).fill(120) }));

  it('reads files beside each other, tells each what is wrong with it, and writes what it made of it to disk', async () => {
    const workers = new Workers(log);
    const outcomes = await Promise.allSettled([
      workers.run('importFile', picture()),
      workers.run('importFile', file('b.png', 'no picture')),
      workers.run('importParcel', file('c.zip', 'no parcel')),
      workers.run('importFile', picture()),
    ]);
    expect(codes(outcomes)).toEqual(['taken', 'picture.kind', 'parcel.none', 'taken']);
    const asset = (outcomes[0] as PromiseFulfilledResult<{ file: string; hash: string; size: number }>).value;
    const bytes = new Uint8Array(readFileSync(asset.file));
    expect([hashName(bytes), bytes.length]).toEqual([asset.hash, asset.size]);
    await workers.close();
  });

  it('is given up when it takes too long, and other work is done after it', async () => {
    const hasty = new Workers(log, 0);
    for (let times = 0; times < 3; times++)
      await expect(hasty.run('importFile', picture())).rejects.toMatchObject({ code: 'import.slow' });
    await hasty.close();
    const patient = new Workers(log);
    expect((await patient.run('importFile', picture())).kind).toBe('picture');
    await patient.close();
  });

  it('is refused when too much waits', async () => {
    const workers = new Workers(log);
    const all = await Promise.allSettled(Array.from({ length: 30 }, () => workers.run('importFile', picture())));
    const refused = codes(all).filter((code) => code !== 'taken');
    expect(refused.length).toBeGreaterThan(0);
    expect(new Set(refused)).toEqual(new Set(['busy']));
    await workers.close();
  });
});
