import fc from 'fast-check';
import { encode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { bendingTube } from '../testing/rigs.ts';
import {
  FormatError,
  hashName,
  importGlb,
  importPicture,
  mustBeSmallPicture,
  readCanonicalPicture,
  readPicture,
  readRig,
  writePicture,
  writeRig,
} from './index.ts';

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

describe('pictures that are brought in', () => {
  const noWebp = () => Promise.reject(new Error('no WebP here'));
  const png = (width: number, height: number) => {
    const bytes = encode({ width: 1, height: 1, channels: 4, data: new Uint8Array(4) }).slice();
    new DataView(bytes.buffer).setUint32(16, width);
    new DataView(bytes.buffer).setUint32(20, height);
    return bytes;
  };

  it('come back from canonical bytes as they were, and damaged ones are refused', () => {
    const picture = { width: 3, height: 2, rgba: Uint8Array.from({ length: 24 }, (_, i) => i * 10) };
    const bytes = writePicture(picture);
    expect(readCanonicalPicture(bytes)).toEqual(picture);
    expect(hashName(writePicture(readCanonicalPicture(bytes)))).toBe(hashName(bytes));
    for (let length = 0; length < bytes.length; length += 7)
      expect(() => readCanonicalPicture(bytes.slice(0, length))).toThrow(FormatError);
    expect(() => readCanonicalPicture(writeRig(bendingTube()))).toThrow(/not a picture/);
    expect(() => readRig(bytes)).toThrow(/not a rig/);
  });

  it('are refused with a sentence that says what is wrong: too wide, empty, of no kind, damaged', async () => {
    await expect(importPicture(png(20_000, 4), noWebp)).rejects.toThrow(
      /20000 × 4 pixels; up to 8192.*make it smaller/,
    );
    await expect(importPicture(png(0, 4), noWebp)).rejects.toThrow(/no pixels/);
    await expect(importPicture(png(8192, 4097), noWebp)).rejects.toThrow(/up to 32 million are read/);
    await expect(importPicture(new Uint8Array(0), noWebp)).rejects.toThrow(/empty/);
    await expect(importPicture(new Uint8Array([1, 2, 3, 4]), noWebp)).rejects.toThrow(/PNG, JPEG and WebP/);
    const whole = encode({ width: 8, height: 8, channels: 4, data: new Uint8Array(256).fill(90) });
    await expect(importPicture(whole.slice(0, 40), noWebp)).rejects.toThrow(FormatError);
    const riff = new TextEncoder().encode('RIFF....WEBPVP8 ');
    await expect(importPicture(riff, noWebp)).rejects.toThrow(/damaged.*no WebP here/);
  });
});

describe('large pictures', () => {
  it('that were kept earlier are still read', () => {
    const [width, height] = [8192, 4100];
    const { rgba, ...size } = readCanonicalPicture(
      writePicture({ width, height, rgba: new Uint8Array(width * height * 4) }),
    );
    expect([size, rgba.length]).toEqual([{ width, height }, width * height * 4]);
  });

  it('are refused as thumbnails by the size they state', () => {
    const png = encode({ width: 1, height: 1, channels: 4, data: new Uint8Array(4) }).slice();
    expect(() => mustBeSmallPicture(png, 1024)).not.toThrow();
    new DataView(png.buffer).setUint32(20, 1025);
    expect(() => mustBeSmallPicture(png, 1024)).toThrow(/1 × 1025 pixels; up to 1024/);
    expect(() => mustBeSmallPicture(new Uint8Array([1, 2, 3]), 1024)).toThrow(/how large it is/);
  });
});

describe('meshes of several parts', () => {
  it('keep them, and parts that lead past their triangles are refused', () => {
    const rig = bendingTube(3, 3);
    const { length } = rig.mesh.indices;
    const parts = [
      { name: 'low', start: 0, count: 6 },
      { name: 'high', start: 6, count: length - 6 },
    ];
    const parted = { ...rig, mesh: { ...rig.mesh, parts } };
    expect(readRig(writeRig(parted))).toEqual(parted);
    const beyond = { ...rig, mesh: { ...rig.mesh, parts: [{ name: 'x', start: 0, count: length + 3 }] } };
    expect(() => readRig(writeRig(beyond))).toThrow(/triangles that are not there/);
    // A mesh of one part has the bytes it always had.
    expect(hashName(writeRig(rig))).toBe(hashName(writeRig(bendingTube(3, 3))));
  });
});

/** A GLB of nothing but what it says of itself. */
function glbOf(said: unknown): Uint8Array {
  let text = JSON.stringify(said);
  while (text.length % 4 !== 0) text += ' ';
  const bytes = new Uint8Array(20 + text.length);
  const view = new DataView(bytes.buffer);
  [0x46546c67, 2, bytes.length, text.length, 0x4e4f534a].forEach((word, n) => view.setUint32(n * 4, word, true));
  bytes.set(new TextEncoder().encode(text), 20);
  return bytes;
}

describe('import', () => {
  const list = { componentType: 5125, type: 'SCALAR', count: 15_000_000 };
  it.each([
    ['no part of the file', { accessors: [list] }],
    ['a sparse list', { accessors: [{ ...list, sparse: { count: 1 } }] }],
    [
      'a part that is far shorter',
      {
        buffers: [{ byteLength: 12 }],
        bufferViews: [{ buffer: 0, byteLength: 12 }],
        accessors: [{ ...list, bufferView: 0 }],
      },
    ],
  ])('refuses a GLB of a few hundred bytes that states 15 million indices: %s', async (_, said) => {
    const glb = glbOf({ asset: { version: '2.0' }, scene: 0, scenes: [{ nodes: [] }], ...said });
    expect(glb.length).toBeLessThan(424);
    await expect(importGlb(glb, 'x')).rejects.toMatchObject({ code: 'glb.boast' });
  });

  it.each([
    [new Uint8Array(0)],
    [new Uint8Array(12)],
    [new TextEncoder().encode('glTF\u0002\u0000\u0000\u0000junk')],
  ])('refuses what is no GLB with a sentence', async (bytes) => {
    await expect(importGlb(bytes, 'x')).rejects.toBeInstanceOf(FormatError);
  });
});
