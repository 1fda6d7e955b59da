import { CanvasScreen } from './canvasScreen.ts';
import { runWorker } from './runWorker.ts';

// The player's worker: computes, and draws on the canvas that it is given.
runWorker((start, tell) => {
  const { canvas } = start;
  if (!canvas) throw new Error('without a canvas there is nothing to draw on');
  return new CanvasScreen({ ...start, canvas }, tell);
});
