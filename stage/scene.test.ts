import { afterEach, expect, it, vi } from 'vitest';
import type { StageContext } from './context.ts';
import type { FromStage } from './protocol.ts';
import { Scene } from './scene.ts';

/** A stage whose pictures are numbers, and are read as late as a test says. */
const graphics = vi.hoisted(() => ({ pictures: 0, reads: [] as (() => void)[] }));
vi.mock('./stage.ts', () => ({
  Stage: class {
    take(): void {}
    finish(): void {}
    hasNewEdit = () => false;
    tracked = () => null;
    draw = () => ({ step: ++graphics.pictures, drawn: 0, edit: 0 });
    pixels = () => ({ data: new Uint8Array(4) });
    drawnPixels(): Promise<number> {
      const picture = graphics.pictures;
      return new Promise((resolve) => graphics.reads.push(() => resolve(picture)));
    }
  },
}));
afterEach(() => vi.unstubAllGlobals());

it('refuses what is asked of a scene that cannot be drawn, before it has failed and after', () => {
  const told: FromStage[] = [];
  const scene = new Scene(true, (message) => told.push(message));
  scene.take({ kind: 'start', canvas: null, width: 100, height: 80 });
  scene.take({ kind: 'time', id: 1, times: 1 });
  scene.take({ kind: 'size', width: 50, height: 40 });
  expect(told).toEqual([]);
  scene.fail('No graphics.');
  scene.take({ kind: 'size', width: 100, height: 80 });
  scene.take({ kind: 'pixels', id: 2, width: 10, height: 8 });
  const refused = { kind: 'refused', sentence: 'The stage does not draw.' };
  expect(told).toEqual([
    { kind: 'failed', sentence: 'No graphics.' },
    { ...refused, id: 1 },
    { ...refused, id: 2 },
  ]);
});

it('has the newest picture on its canvas when it has answered, however late an older one was read', async () => {
  vi.stubGlobal('createImageBitmap', (picture: number) => Promise.resolve(picture));
  const shown: number[] = [];
  const context = { transferFromImageBitmap: (picture: number) => shown.push(picture) };
  const canvas = { getContext: () => context } as unknown as OffscreenCanvas;
  const told: FromStage[] = [];
  const scene = new Scene(false, (message) => told.push(message));
  scene.take({ kind: 'start', canvas, width: 10, height: 10 });
  scene.begin({} as StageContext);
  scene.turn(1000);
  scene.take({ kind: 'pixels', id: 1, width: 1, height: 1 });
  const answered = scene.answerNext();
  // Reads that are under way end the other way round.
  while (graphics.reads.length > 0 || shown.length < 2) {
    await new Promise((resolve) => setTimeout(resolve));
    graphics.reads.pop()?.();
  }
  await answered;
  expect(shown).toEqual([1, 2]);
  expect(told.at(-1)).toMatchObject({ kind: 'pixels', id: 1 });
});
