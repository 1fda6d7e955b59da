import { describe, expect, it } from 'vitest';
import { NO_SIZES, Frame, frameBytes } from './frame.ts';
import { FrameReader, FrameWriter, tripleBuffer, tripleBufferBytes } from './tripleBuffer.ts';

const SIZES = { ...NO_SIZES, records: 16 };
const ROOM = frameBytes(SIZES);

describe('the triple buffer', () => {
  it('gives the reader the newest whole frame, and none before the first', () => {
    const triple = tripleBuffer(new SharedArrayBuffer(tripleBufferBytes(ROOM)), ROOM);
    const writer = new FrameWriter(triple);
    const reader = new FrameReader(triple);
    expect(reader.newest()).toBeNull();
    for (const step of [1, 2, 3]) {
      writer.frame.u32[0] = step;
      writer.publish();
    }
    expect(reader.newest()!.step).toBe(3);
    expect(reader.newest()!.step).toBe(3);
  });

  it('never lets the writer touch what is being read', () => {
    const triple = tripleBuffer(new SharedArrayBuffer(tripleBufferBytes(ROOM)), ROOM);
    const writer = new FrameWriter(triple);
    const reader = new FrameReader(triple);
    let read: Frame | null = null;
    for (let step = 1; step < 200; step++) {
      expect(writer.frame).not.toBe(read);
      writer.frame.u32[0] = step;
      writer.publish();
      if (step % 3 === 0) {
        read = reader.newest();
        expect(read!.step).toBe(step);
      }
    }
  });
});
