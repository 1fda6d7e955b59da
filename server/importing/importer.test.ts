import { encode } from 'fast-png';
import { strToU8 } from 'fflate';
import { pino } from 'pino';
import { describe, expect, it } from 'vitest';
import { Importer } from './importer.ts';

const log = pino({ level: 'silent' });
const picture = () => encode({ width: 2, height: 2, channels: 4, data: new Uint8Array(16).fill(120) });

describe('files from outside', () => {
  it('are read beside each other, and each is told what is wrong with it', async () => {
    const importer = new Importer(log);
    const outcomes = await Promise.allSettled([
      importer.file(picture(), 'a.png'),
      importer.file(strToU8('no picture'), 'b.png'),
      importer.parcel(strToU8('no parcel')),
      importer.file(picture(), 'c.png'),
    ]);
    expect(
      outcomes.map((one) => (one.status === 'fulfilled' ? 'taken' : (one.reason as { code: string }).code)),
    ).toEqual(['taken', 'picture.kind', 'parcel.none', 'taken']);
    await importer.close();
  });

  it('are given up when they take too long, and others are read after them', async () => {
    const hasty = new Importer(log, 0);
    for (let times = 0; times < 3; times++)
      await expect(hasty.file(picture(), 'a.png')).rejects.toMatchObject({ code: 'import.slow' });
    await hasty.close();
    const patient = new Importer(log);
    expect((await patient.file(picture(), 'a.png')).kind).toBe('picture');
    await patient.close();
  });

  it('are sent away when too many wait', async () => {
    const importer = new Importer(log);
    const all = Array.from({ length: 30 }, () => Promise.resolve().then(() => importer.file(picture(), 'a.png')));
    const refused = (await Promise.allSettled(all)).filter((one) => one.status === 'rejected');
    expect(refused.length).toBeGreaterThan(0);
    for (const one of refused) expect((one.reason as { code: string }).code).toBe('busy');
    await importer.close();
  });
});
