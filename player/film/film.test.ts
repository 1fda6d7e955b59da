import { unzipSync } from 'fflate';
import { newEffect } from '@jinx/core/document';
import { newFilmSettings } from '@jinx/core/formats';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { Encoders } from './encoders.ts';
import { encode, type EncodeJob } from './encode.ts';
import { SequenceMaker } from './makers/sequence.ts';
import { openSink } from './sink.ts';

/** A disk of so many bytes, as a page has it, and the names of the files on it. */
function disk(room: number) {
  const files = new Map<string, Uint8Array>();
  const handleOf = (name: string) => ({
    write: (piece: Uint8Array, { at }: { at: number }) => {
      if (at + piece.length > room) throw new DOMException('full', 'QuotaExceededError');
      const whole = new Uint8Array(Math.max(files.get(name)!.length, at + piece.length));
      whole.set(files.get(name)!);
      whole.set(piece, at);
      files.set(name, whole);
      return piece.length;
    },
    flush: () => undefined,
    close: () => undefined,
  });
  const folder = {
    getFileHandle: async (name: string) => {
      files.set(name, new Uint8Array(0));
      return {
        name,
        createSyncAccessHandle: async () => handleOf(name),
        getFile: async () => new Blob([files.get(name)! as Uint8Array<ArrayBuffer>]),
      };
    },
    removeEntry: async (name: string) => void files.delete(name),
  };
  vi.stubGlobal('navigator', { storage: { getDirectory: async () => ({ getDirectoryHandle: async () => folder }) } });
  return files;
}
afterEach(() => vi.unstubAllGlobals());

/** Encoders that work here, at once. */
const here = () =>
  new Encoders(1, () => {
    const coder = {
      onmessage: null as ((event: MessageEvent) => void) | null,
      onerror: null,
      postMessage: (job: EncodeJob) =>
        void encode(job).then((bytes) => coder.onmessage!({ data: { bytes } } as MessageEvent)),
      terminate: () => undefined,
    };
    return coder;
  });
const settings = { ...newFilmSettings('png', newEffect('Lamp', 1)), width: 8, height: 8 };
const taken = (number: number) => ({
  number,
  pixels: {
    whole: { picture: new Uint8Array(256).fill(number + 1), linear: null },
    covering: null,
    added: null,
    factor: null,
  },
  marks: null,
});

describe('a sequence of pictures', () => {
  it('is written as it comes, in order', async () => {
    disk(1 << 20);
    const sink = await openSink();
    const maker = new SequenceMaker(settings, 'Lamp', sink, here());
    for (let n = 0; n < 9; n++) await maker.take(taken(n));
    expect(sink.bytes).toBeGreaterThan(5 * 80);
    await maker.finish();
    const names = Object.keys(unzipSync(new Uint8Array(await (await sink.close()).arrayBuffer())));
    expect(names).toEqual([...Array.from({ length: 9 }, (_, n) => `Lamp.0000${n + 1}.png`), 'Lamp.json']);
  });

  it('ends in a sentence where the disk is full, and leaves nothing', async () => {
    const files = disk(400);
    const sink = await openSink();
    expect(files.size).toBe(1);
    const maker = new SequenceMaker(settings, 'Lamp', sink, here());
    const all = async () => {
      for (let n = 0; n < 9; n++) await maker.take(taken(n));
      await maker.finish();
    };
    await expect(all()).rejects.toThrow(/no more room on this disk.*Nothing of it was kept/);
    await sink.abandon();
    expect(files.size).toBe(0);
  });
});
