import fc from 'fast-check';
import { encode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { bendingTube } from '../testing/rigs.ts';
import { FormatError, hashName, importGlb, readPicture, readRig, writeRig } from './index.ts';

describe('canonical rigs', () => {
  it('come back as they were, and equal rigs give equal bytes', () => {
    const bytes = writeRig(bendingTube());
    expect(readRig(bytes)).toEqual(bendingTube());
    expect(hashName(writeRig(readRig(bytes)))).toBe(hashName(bytes));
  });

  it('are refused with a sentence wherever a byte is lost, and never read past their end', () => {
    const bytes = writeRig(bendingTube(3, 3));
    for (let length = 0; length < bytes.length; length += 97)
      expect(() => readRig(bytes.slice(0, length))).toThrow(FormatError);
  });

  it('are either refused or read whole when bytes are changed: nothing else is thrown', () => {
    const bytes = writeRig(bendingTube(3, 3));
    fc.assert(
      fc.property(fc.nat(bytes.length - 1), fc.nat(255), (at, value) => {
        const spoilt = bytes.slice();
        spoilt[at] = value;
        try {
          readRig(spoilt);
        } catch (error) {
          expect(error).toBeInstanceOf(FormatError);
        }
      }),
      { numRuns: 400 },
    );
  });

  it('with a triangle that leads nowhere are refused', () => {
    const rig = bendingTube();
    rig.mesh.indices[4] = 99999;
    expect(() => readRig(writeRig(rig))).toThrow(/leads to no vertex/);
  });
});

describe('pictures', () => {
  it('are decoded from PNG of any channels to the same eight bits', () => {
    for (const channels of [1, 2, 3, 4] as const) {
      const data = Uint8Array.from({ length: 4 * channels }, (_, i) => (i * 37) % 256);
      const { rgba, width } = readPicture(encode({ width: 2, height: 2, channels, data }));
      expect(width).toBe(2);
      expect(rgba[0]).toBe(data[0]);
      expect(rgba[3]).toBe(channels === 4 ? data[3] : channels === 2 ? data[1] : 255);
    }
  });
  it('of other kinds are refused', () => {
    expect(() => readPicture(new Uint8Array([1, 2, 3, 4]))).toThrow(/PNG and JPEG/);
    expect(() => readPicture(new Uint8Array([0x89, 0x50, 0, 0]))).toThrow(FormatError);
  });
});

describe('import', () => {
  it.each([
    [new Uint8Array(0)],
    [new Uint8Array(12)],
    [new TextEncoder().encode('glTF\u0002\u0000\u0000\u0000junk')],
  ])('refuses what is no GLB with a sentence', async (bytes) => {
    await expect(importGlb(bytes, 'x')).rejects.toBeInstanceOf(FormatError);
  });
});
