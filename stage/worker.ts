import { StageContext } from './context.ts';
import type { FromStageWorker, ToStageWorker } from './protocol.ts';
import { Scene } from './scene.ts';

// The stage's worker: draws on the page's canvas, and can be kept waiting by nothing the page does. Scenes beside the main
// one are drawn with the same graphics, when the main one has had its turn.
declare const self: DedicatedWorkerGlobalScope;

const HURRY_MILLISECONDS = 4;
const HURRY_TRIES = 12;
const NO_GRAPHICS =
  'The stage could not start: this browser gave no WebGL 2. Turn on hardware or software drawing and reload.';

const scenes = new Map<number, Scene>();
let context: StageContext | null = null;
let isFailed = false;
let main: Scene | null = null;

function open(id: number, isMain: boolean): void {
  const scene = new Scene(isMain, (message, transfer = []) =>
    self.postMessage({ scene: id, message } satisfies FromStageWorker, transfer),
  );
  scenes.set(id, scene);
  if (isMain) main = scene;
}
function close(id: number): void {
  scenes.get(id)?.close();
  scenes.delete(id);
}

/** Takes the graphics of the main scene's canvas, or of one that nobody sees, and lets every scene begin that can. */
function start(scene: Scene): void {
  if (isFailed) return scene.fail(NO_GRAPHICS);
  if (context) return scene.begin(context);
  if (main && main !== scene) return;
  try {
    context = new StageContext((main && scene.start!.canvas) ?? new OffscreenCanvas(1, 1));
  } catch {
    isFailed = true;
    for (const each of scenes.values()) if (each.start) each.fail(NO_GRAPHICS);
    return;
  }
  context.listen((isLost) => scenes.forEach((each) => each.tellLost(isLost)));
  for (const each of scenes.values()) if (each.start) each.begin(context);
  loop();
}

function loop(): void {
  self.requestAnimationFrame(loop);
  const now = performance.now();
  if (main?.turn(now)) return;
  for (const scene of scenes.values()) if (scene !== main && scene.turn(now)) return;
}

/** Draws an edit as soon as it is there as a whole, without waiting for the page's next picture. */
function hurry(triesLeft = HURRY_TRIES): void {
  const now = performance.now();
  if (main!.hasNewEdit(now)) main!.turn(now);
  else if (triesLeft > 0) setTimeout(() => hurry(triesLeft - 1), HURRY_MILLISECONDS);
}

let isAnswering = false;
/** Answers what is asked of scenes beside the main one, a question at a time: what is edited or due in that goes first. */
function answerLater(): void {
  if (isAnswering) return;
  isAnswering = true;
  setTimeout(() => void answerOne());
}
async function answerOne(): Promise<void> {
  main?.turn(performance.now());
  const asked = [...scenes.values()].find((scene) => scene !== main && scene.hasQuestion);
  await asked?.answerNext();
  isAnswering = false;
  if (asked) answerLater();
}

self.onmessage = ({ data }: MessageEvent<ToStageWorker>) => {
  if (data.kind === 'open') return open(data.scene, data.isMain);
  if (data.kind === 'close') return close(data.scene);
  const scene = scenes.get(data.scene);
  if (!scene) return;
  const { order } = data;
  scene.take(order);
  if (order.kind === 'start') return start(scene);
  if (order.kind === 'edited' && scene === main) hurry();
  if (scene !== main && scene.hasQuestion) answerLater();
};
