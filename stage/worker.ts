import type { FromStage, ToStage } from './protocol.ts';
import { Stage } from './stage.ts';

// The stage's worker: draws on the page's canvas, and can be kept waiting by nothing the page does.
declare const self: DedicatedWorkerGlobalScope;

const MEASURE_EVERY_MILLISECONDS = 400;
/** Share of the time that drawing may take, so that a machine without a graphics card keeps some for the rest. */
const MOST_SHARE = 0.5;
/** While someone edits, the next change should seldom find it drawing. */
const MOST_SHARE_EDITING = 0.25;
/** One slow picture, such as the first with a new shader, must not hold the next ones back for long. */
const MOST_WAIT_MILLISECONDS = 200;
/** While someone edits, a slow machine stands ready for the next change rather than drawing on without a pause. */
const MOST_WAIT_EDITING_MILLISECONDS = 500;
const EDITING_MILLISECONDS = 1500;
const HURRY_MILLISECONDS = 4;
const HURRY_TRIES = 12;

let stage: Stage | null = null;
const waiting: ToStage[] = [];
let measuredAt = 0;
let cost = 0;
let drawnAt = -Infinity;
let shownEdit = 0;
let editedAt = -Infinity;
/** How much of the canvas is drawn each way while it plays on a machine that draws slowly. */
let fineness = 1;
let isPlaying = false;
const COARSE = 0.5;
/** Milliseconds of a whole picture above which a playing one is drawn coarsely, and of a coarse one below which it is not. */
const SLOW = 70;
const QUICK = 12;

function drawAt(wanted: number): void {
  if (wanted === fineness) return;
  fineness = wanted;
  stage!.drawAt(wanted);
}

const tell = (message: FromStage, transfer: Transferable[] = []) => self.postMessage(message, transfer);

function loop(): void {
  self.requestAnimationFrame(loop);
  const now = performance.now();
  const isEditing = now - editedAt < EDITING_MILLISECONDS;
  const wait = isEditing
    ? Math.min(MOST_WAIT_EDITING_MILLISECONDS, cost / MOST_SHARE_EDITING)
    : Math.min(MOST_WAIT_MILLISECONDS, cost / MOST_SHARE);
  if (now - drawnAt >= wait || stage!.hasNewEdit(now)) drawNow(now);
}

/** Draws an edit as soon as it is there as a whole, without waiting for the page's next picture. */
function hurry(triesLeft = HURRY_TRIES): void {
  const now = performance.now();
  if (stage!.hasNewEdit(now)) drawNow(now);
  else if (triesLeft > 0) setTimeout(() => hurry(triesLeft - 1), HURRY_MILLISECONDS);
}

function drawNow(now: number): void {
  const isMeasured = now - measuredAt > MEASURE_EVERY_MILLISECONDS;
  if (isMeasured) stage!.finish();
  const start = performance.now();
  const drawn = stage!.draw(start);
  if (!drawn) return;
  drawnAt = start;
  if (drawn.edit > shownEdit) {
    // It is seen once it is drawn to its end.
    stage!.finish();
    shownEdit = drawn.edit;
    tell({ kind: 'shown', edit: shownEdit, at: performance.timeOrigin + performance.now() });
  }
  const tracked = stage!.tracked();
  if (tracked) tell({ kind: 'tracked', ...tracked });
  if (!isMeasured) return;
  stage!.finish();
  measuredAt = performance.now();
  cost = measuredAt - start;
  tell({ kind: 'drawn', step: drawn.step, drawn: drawn.drawn, drawMilliseconds: cost });
  if (isPlaying && fineness === 1 && cost > SLOW) drawAt(COARSE);
  else if (fineness !== 1 && cost < QUICK) drawAt(1);
}

type Question = Extract<ToStage, { id: number }>;

/** Answers a question; one that cannot be answered is refused, and the stage draws on. */
async function answer(question: Question, of: Stage): Promise<void> {
  try {
    await answerOf(question, of);
  } catch (error) {
    tell({ kind: 'refused', id: question.id, sentence: `The stage could not answer: ${(error as Error).message}` });
  }
}

async function answerOf(question: Question, of: Stage): Promise<void> {
  const { id } = question;
  if (question.kind === 'pixels') {
    const { width, height } = question;
    const rgba = of.pixels(width, height, performance.now());
    // What is read back is on the canvas too by the time it is told of.
    drawNow(performance.now());
    tell({ kind: 'pixels', id, width, height, rgba }, [rgba.buffer as ArrayBuffer]);
  } else if (question.kind === 'particlePictures') {
    const rgba = await of.particlePictures(question);
    const pixels = rgba ?? new Uint8Array(0);
    tell({ kind: 'particlePictures', id, size: rgba ? question.size : 0, rgba: pixels }, [
      pixels.buffer as ArrayBuffer,
    ]);
  } else if (question.kind === 'pixel')
    tell({ kind: 'pixel', id, pixel: of.pixel(question.x, question.y, performance.now()) });
  else if (question.kind === 'pixelSteps') {
    const { x, y, salt } = question;
    tell({ kind: 'pixelSteps', id, steps: await of.pixelSteps(x, y, salt) });
  } else tell({ kind: 'time', id, milliseconds: drawTimes(of, question.times) });
}

/** Milliseconds of each of `times` whole pictures. */
function drawTimes(of: Stage, times: number): number[] {
  return Array.from({ length: times }, () => {
    const start = performance.now();
    of.draw(start, true);
    of.finish();
    return performance.now() - start;
  });
}

function take(order: ToStage): void {
  if (order.kind === 'start') start(order);
  else if (!stage) waiting.push(order);
  else if ('id' in order) void answer(order, stage);
  else {
    stage.take(order);
    if (order.kind === 'edited') {
      editedAt = performance.now();
      hurry();
    }
    if (order.kind !== 'pace') return;
    isPlaying = order.isPlaying;
    // What stands still is seen as finely as it can be.
    if (!isPlaying) drawAt(1);
  }
}

function start({ canvas, width, height }: Extract<ToStage, { kind: 'start' }>): void {
  try {
    stage = new Stage(
      canvas,
      (isLost) => tell({ kind: 'lost', isLost }),
      (sentence) => tell({ kind: 'failed', sentence }),
    );
  } catch {
    tell({
      kind: 'failed',
      sentence:
        'The stage could not start: this browser gave no WebGL 2. Turn on hardware or software drawing and reload.',
    });
    for (const order of waiting.splice(0))
      if ('id' in order) tell({ kind: 'refused', id: order.id, sentence: 'The stage does not draw.' });
    return;
  }
  stage.take({ kind: 'size', width, height });
  waiting.splice(0).forEach(take);
  loop();
}

self.onmessage = ({ data }: MessageEvent<ToStage>) => take(data);
