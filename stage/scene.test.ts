import { expect, it } from 'vitest';
import type { FromStage } from './protocol.ts';
import { Scene } from './scene.ts';

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
