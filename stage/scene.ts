import { answerTo } from './answers.ts';
import type { StageContext } from './context.ts';
import { Pace } from './pace.ts';
import type { FromStage, StageQuestion, ToStage } from './protocol.ts';
import { Stage } from './stage.ts';

const MEASURE_EVERY_MILLISECONDS = 400;
/** The first document is waited for no longer than so. */
const FIRST_MILLISECONDS = 1500;

type Start = Extract<ToStage, { kind: 'start' }>;
type Order = Exclude<ToStage, Start>;
export type TellPage = (message: FromStage, transfer?: Transferable[]) => void;

const isQuestion = (order: Order): order is StageQuestion => 'id' in order;

/** A scene of the stage's worker: carries out what the page tells it in turn, and is drawn when it is due. */
export class Scene {
  readonly isMain: boolean;
  readonly #tell: TellPage;
  readonly #pace: Pace;
  /** Orders that came before it could begin, or, beside the main scene, behind a question that waits for its turn. */
  readonly #waiting: Order[] = [];
  #start: Start | null = null;
  #stage: Stage | null = null;
  /** Shows pictures on a canvas of its own. */
  #shown: ImageBitmapRenderingContext | null = null;
  /** Resolves once what was drawn last is on its own canvas. */
  #showing: Promise<void> | null = null;
  #isShowing = false;
  #isAnswering = false;
  #isClosed = false;
  #hasFailed = false;
  #measuredAt = 0;
  #shownEdit = 0;
  #hasDrawn = false;
  /** Whether it has the size that it has on the page. */
  #isPlaced = false;
  /** When its first document was told. */
  #toldAt = Infinity;

  constructor(isMain: boolean, tell: TellPage) {
    this.isMain = isMain;
    this.#tell = tell;
    this.#pace = new Pace(isMain);
  }

  /** What it is to be drawn on, once the page has said so. */
  get start(): Start | null {
    return this.#start;
  }

  /** Takes an order of the page. */
  take(order: ToStage): void {
    if (order.kind === 'start') this.#start = order;
    else if (this.#hasFailed) this.#refuse(order);
    else {
      this.#waiting.push(order);
      this.#advance();
    }
  }
  #refuse(order: Order): void {
    if (isQuestion(order)) this.#tell({ kind: 'refused', id: order.id, sentence: 'The stage does not draw.' });
  }

  /** Begins to be drawn: all that was ordered before is carried out. */
  begin(context: StageContext): void {
    const { canvas, width, height } = this.#start!;
    this.#stage = new Stage(context, this.isMain ? 'canvas' : 'picture', (sentence) =>
      this.#tell({ kind: 'failed', sentence }),
    );
    if (!this.isMain && canvas) this.#shown = canvas.getContext('bitmaprenderer');
    this.#isPlaced = width > 0;
    this.#stage.take({ kind: 'size', width, height });
    this.#advance();
  }

  /** It can never be drawn: what is asked of it is refused, also later. */
  fail(sentence: string): void {
    this.#hasFailed = true;
    this.#tell({ kind: 'failed', sentence });
    for (const order of this.#waiting.splice(0)) this.#refuse(order);
  }

  tellLost(isLost: boolean): void {
    this.#tell({ kind: 'lost', isLost });
  }

  close(): void {
    this.#isClosed = true;
    this.#waiting.length = 0;
    this.#stage?.dispose();
    this.#stage = null;
  }

  /** Carries out orders, up to a question that waits for its turn. */
  #advance(): void {
    while (this.#stage && !this.#isAnswering && this.#waiting.length > 0) {
      const [order] = this.#waiting as [Order];
      if (isQuestion(order) && !this.isMain) return;
      this.#waiting.shift();
      if (isQuestion(order)) void this.#answer(order, this.#stage);
      else this.#do(order, this.#stage);
    }
  }

  #do(order: Exclude<Order, StageQuestion>, stage: Stage): void {
    stage.take(order);
    if (order.kind === 'size') this.#isPlaced = true;
    if (order.kind === 'edited') {
      const now = performance.now();
      this.#pace.edited(now);
      this.#toldAt = Math.min(this.#toldAt, now);
    }
    if (order.kind !== 'pace') return;
    this.#changePace(stage, () => (this.#pace.isPlaying = order.isPlaying));
  }
  #changePace(stage: Stage, change: () => void): void {
    const { fineness } = this.#pace;
    change();
    if (this.#pace.fineness !== fineness) stage.drawAt(this.#pace.fineness);
  }

  /** Whether a question waits for its turn. */
  get hasQuestion(): boolean {
    return this.#stage !== null && !this.#isAnswering && this.#waiting.length > 0;
  }
  /** Answers the question that waits; then carries out what was ordered after it. */
  async answerNext(): Promise<void> {
    if (!this.hasQuestion) return;
    this.#isAnswering = true;
    await this.#answer(this.#waiting.shift() as StageQuestion, this.#stage!);
    this.#isAnswering = false;
    this.#advance();
  }
  async #answer(question: StageQuestion, stage: Stage): Promise<void> {
    const [message, transfer] = await answerTo(question, stage);
    // What is read back is on the canvas too by the time it is told of.
    if (message.kind === 'pixels') {
      // One that is on its way to the canvas comes first: the older of two that are read at once could come last, and stay.
      await this.#showing;
      if (!this.#isClosed) this.#draw();
      await this.#showing;
    }
    if (!this.#isClosed) this.#tell(message, transfer);
  }

  /** Whether an edit waits to be drawn that is there as a whole: people see at once what they do. */
  hasNewEdit(now: number): boolean {
    return this.#stage?.hasNewEdit(now) ?? false;
  }
  /**
   * Whether it waits for its place on the page, or for its first document. It is drawn once before, which makes what it is
   * drawn with; more pictures would only hold the first back that is seen.
   */
  #awaitsFirst(now: number): boolean {
    if (!this.isMain || this.#shownEdit > 0 || !this.#hasDrawn) return false;
    return !this.#isPlaced || (!this.hasNewEdit(now) && now - this.#toldAt < FIRST_MILLISECONDS);
  }
  /** Draws, if it is due. Returns whether anything was drawn. */
  turn(now: number): boolean {
    const isSeen = this.isMain || this.#shown !== null;
    if (!this.#stage || !isSeen || this.#isAnswering || this.#isShowing || this.#awaitsFirst(now)) return false;
    return this.#pace.isDue(now) || this.hasNewEdit(now) ? this.#draw() : false;
  }

  #draw(): boolean {
    const [stage, pace] = [this.#stage!, this.#pace];
    const isMeasured = performance.now() - this.#measuredAt > MEASURE_EVERY_MILLISECONDS;
    if (isMeasured) stage.finish();
    const start = performance.now();
    const drawn = stage.draw(start);
    if (!drawn) return false;
    this.#hasDrawn = true;
    pace.drawn(start);
    if (this.#shown) this.#showing = this.#show(stage, this.#shown);
    if (drawn.edit > this.#shownEdit) {
      // It is seen once it is drawn to its end.
      stage.finish();
      this.#shownEdit = drawn.edit;
      this.#tell({ kind: 'shown', edit: drawn.edit, at: performance.timeOrigin + performance.now() });
    }
    const tracked = stage.tracked();
    if (tracked) this.#tell({ kind: 'tracked', ...tracked });
    if (!isMeasured) return true;
    stage.finish();
    this.#measuredAt = performance.now();
    const cost = this.#measuredAt - start;
    this.#tell({ kind: 'drawn', step: drawn.step, drawn: drawn.drawn, drawMilliseconds: cost });
    this.#changePace(stage, () => pace.measured(cost));
    return true;
  }

  /** Shows what was drawn on the scene's own canvas; until then it is not drawn again. */
  async #show(stage: Stage, shown: ImageBitmapRenderingContext): Promise<void> {
    this.#isShowing = true;
    try {
      const bitmap = await createImageBitmap(await stage.drawnPixels());
      if (!this.#isClosed) shown.transferFromImageBitmap(bitmap);
    } catch {
      // It was closed, or the graphics were taken away: the next picture is whole again.
    }
    this.#isShowing = false;
  }
}
