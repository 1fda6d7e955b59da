import { diff, type Effect, type Transition, type Vector } from '@jinx/core/document';
import type { StageRigs } from '@jinx/core/checks';
import { wholeOf } from '@jinx/core/editing';
import { readCanonicalPicture, readRig, rigsOf } from '@jinx/core/formats';
import type { Rig } from '@jinx/core/geometry';
import { EffectClock, type Census, type Pull } from '@jinx/core/simulation';
import type {
  ParticlePicturesAsked,
  FromStage,
  Guide,
  PixelStep,
  ProbedPixel,
  StagePicture,
  StageView,
  ToStage,
  Tracked,
} from '@jinx/stage';
import { shallowReactive, shallowRef } from 'vue';
import { api, ApiError } from '../api';
import { AssetCache, type AssetProblem } from './assets';
import type { Seen } from './drawn';
import type { FromSimulation, LayerCount, SimulationState, ToSimulation, Outside } from './protocol';
import { Questions } from './questions';
import { Restarts } from './restarts';
import { EditSession } from './session';
import { SimulationThread } from './simulationThread';
import { pictureHashes, StageFeed, thingsText, type RigAsset } from './stageFeed';
import { StageThread } from './stageThread';
import { BROWSER_THREADS, type Threads } from './threads';
import type { View } from './view';

const COUNTS_EVERY_MILLISECONDS = 250;
/** How often assets that could not be had are asked for again. */
const RETRY_MILLISECONDS = 10_000;

/** A document with the budget it is computed within. */
interface Shown {
  readonly effect: Effect;
  readonly budget: number;
  /** The edit that led to it; null where it is not known. */
  readonly transition: Transition | null;
}

/** Where the engine's parts come from: the browser and the server, unless a test says otherwise. */
export interface EngineParts {
  readonly threads: Threads;
  /** The canonical bytes of an asset. */
  readonly asset: (hash: string) => Promise<Uint8Array>;
}
const BROWSER_PARTS: EngineParts = { threads: BROWSER_THREADS, asset: (hash) => api.asset(hash) };

const isFinal = (error: unknown): boolean => !(error instanceof ApiError) || error.isFinal;

/** What went wrong with a part of the engine, and whether it has been started again. */
export interface EngineFailure {
  readonly sentence: string;
  /** False where it stands still until somebody starts it again. */
  readonly isRestarted: boolean;
}

/**
 * The page's hold on its two workers, the simulation and the stage. What it knows of them arrives as messages; frames go
 * from one to the other through shared memory and never pass through here.
 */
export class Engine {
  readonly state = shallowReactive({
    step: 0,
    sheetTime: 0,
    living: 0,
    layers: [] as LayerCount[],
    stepMilliseconds: 0,
    drawMilliseconds: 0,
    isExact: true,
    isPlaying: false,
    progress: 1,
    settled: 1,
    isLetGo: false,
    letGoStep: null as number | null,
    speed: 1,
  });
  /** The last thing that went wrong; null when nothing did, or it was put right. */
  readonly failure = shallowRef<EngineFailure | null>(null);
  /** Counts the stage's workers: each draws on a canvas of its own. */
  readonly stageRuns = shallowRef(0);
  /** Whether the graphics were taken away, and are not back yet. */
  readonly isLost = shallowRef(false);
  /** Where the matrices that were asked for stand in the picture last drawn. */
  readonly tracked = shallowRef<Tracked>({ matrices: new Float32Array(0), followed: [0, 0] });
  /** How many silhouettes of other instants the stage has been given. */
  readonly instants = shallowRef(0);
  #instantsId = 0;
  #instantSeconds: number[] = [];
  /** The rigs of the things on the stage, by the id of the thing. */
  readonly rigs = shallowRef<StageRigs>(new Map());
  /** Every mesh the effect uses, by the hash of its asset. */
  readonly meshes = shallowRef<ReadonlyMap<string, Rig>>(new Map());
  /** Assets that could not be had, by hash, with the reason. */
  readonly missing = shallowRef<ReadonlyMap<string, string>>(new Map());
  /** Blows and signals that came from outside, as far as they are still told of. */
  readonly outside = shallowRef<Outside>({ strikes: [], signals: [] });
  readonly #assets: { rigs: AssetCache<RigAsset>; pictures: AssetCache<StagePicture> };
  readonly #session: EditSession<Shown>;
  readonly #simulation: SimulationThread;
  readonly #stage: StageThread;
  readonly #feed: StageFeed;
  readonly #questions = new Questions<'simulation' | 'stage'>();
  readonly #restarts = new Restarts();
  readonly #listeners = new Set<(state: SimulationState) => void>();
  readonly #retryTimer: ReturnType<typeof setInterval>;
  readonly #retryNow = () => this.#retryMissing(false);
  #countsAt = 0;
  /** Hears of each edit as it is drawn: its number, and when by the system's clock. */
  onShown: ((edit: number, at: number) => void) | null = null;
  /** The document that the simulation was told last, whole, and what it was computed with. */
  #told: (Omit<Shown, 'transition'> & { edit: number; loaded: string }) | null = null;
  /** Where the playhead was last sent, until it is there. */
  #wantedStep: number | null = null;

  constructor({ threads, asset }: EngineParts = BROWSER_PARTS) {
    const onLate = () => this.#session.again();
    this.#assets = {
      rigs: new AssetCache({
        fetch: async (hash) => {
          const bytes = await asset(hash);
          return { bytes, rig: readRig(bytes) };
        },
        isFinal,
        onLate,
      }),
      pictures: new AssetCache({
        fetch: async (hash) => ({ hash, texture: readCanonicalPicture(await asset(hash)) }),
        isFinal,
        onLate,
      }),
    };
    this.#session = new EditSession({
      prepare: ({ effect }) => this.#prepare(wholeOf(effect).effect),
      publish: (shown, edit) => this.#publish({ ...shown, effect: wholeOf(shown.effect).effect }, edit),
    });
    this.#simulation = new SimulationThread(threads, {
      message: (message) => this.#hearSimulation(message),
      failed: (reason) => this.#failSimulation(reason),
    });
    this.#stage = new StageThread(() => threads.stage(), {
      message: (message) => this.#hearStage(message),
      failed: (reason) => this.#failStage(reason),
    });
    this.#feed = new StageFeed(this.#assets, (order) => this.tellStage(order));
    this.#retryTimer = setInterval(this.#retryNow, RETRY_MILLISECONDS);
    globalThis.addEventListener?.('online', this.#retryNow);
  }

  #tell(order: ToSimulation): void {
    this.#simulation.send(order);
  }
  tellStage(order: ToStage, transfer: Transferable[] = []): void {
    this.#stage.send(order, transfer);
  }

  #hearSimulation(message: FromSimulation): void {
    if (message.kind === 'frames') this.tellStage(message);
    else if (message.kind === 'state') {
      const wasPlaying = this.state.isPlaying;
      this.#show(message.state);
      for (const heard of this.#listeners) heard(message.state);
      if (this.state.step === this.#wantedStep || this.state.isPlaying) this.#wantedStep = null;
      if (wasPlaying !== this.state.isPlaying) this.#pace();
    } else if (message.kind === 'instant') this.#takeInstant(message);
    else if (message.kind === 'outside') this.outside.value = message.outside;
    else if (message.kind === 'failed') this.failure.value = { sentence: message.sentence, isRestarted: false };
    else if (message.kind === 'refused') this.#questions.refuse(message.id, message.sentence);
    else this.#questions.answer(message.id, message);
  }

  /** The document is kept here: other workers take it up where these ended. */
  #failSimulation(reason: string): void {
    this.#questions.abandon('simulation', 'The simulation stopped before it could answer.');
    const isRestarted = this.#restarts.mayRestart();
    this.failure.value = { sentence: `The simulation stopped: ${reason}`, isRestarted };
    if (isRestarted) this.#restartSimulation();
  }
  #restartSimulation(): void {
    const { step, letGoStep, isPlaying, speed } = this.state;
    this.#simulation.restart();
    if (!this.#told) return;
    const { effect, budget, edit } = this.#told;
    this.#tellLoad(effect, budget, edit);
    this.#tell({ kind: 'outside', outside: this.outside.value });
    this.#tell({ kind: 'speed', speed });
    this.seek(this.#wantedStep ?? step, letGoStep ?? undefined);
    if (isPlaying) this.play();
    this.layInstants(this.#instantSeconds);
  }

  #failStage(reason: string): void {
    this.#questions.abandon('stage', 'The stage stopped before it could answer.');
    const isRestarted = this.#restarts.mayRestart();
    this.failure.value = { sentence: `The stage stopped: ${reason}`, isRestarted };
    if (isRestarted) this.#restartStage();
  }
  #restartStage(): void {
    this.#stage.restart();
    this.#tell({ kind: 'frames' });
    // Whoever holds the canvas gives it another.
    this.stageRuns.value++;
    this.layInstants(this.#instantSeconds);
  }

  /** Starts both workers again with the document as it is: the way on after a failure. */
  restart(): void {
    this.failure.value = null;
    this.#restarts.forget();
    this.#restartSimulation();
    this.#restartStage();
  }

  #takeInstant({ id, buffer, mostJoints, share }: FromSimulation & { kind: 'instant' }): void {
    if (id !== this.#instantsId) return;
    this.instants.value++;
    this.tellStage({ kind: 'instant', buffer, mostJoints, share }, [buffer]);
  }

  /** The playhead moves with every report; counts change slowly enough to be read, and at once while nothing plays or when they have become exact. */
  #show({ living, layers, stepMilliseconds, ...clock }: SimulationState): void {
    const isSettled = clock.isExact && !this.state.isExact;
    Object.assign(this.state, clock);
    const now = performance.now();
    if (clock.isPlaying && !isSettled && now - this.#countsAt < COUNTS_EVERY_MILLISECONDS) return;
    this.#countsAt = now;
    Object.assign(this.state, { living, layers, stepMilliseconds });
  }

  /** Hears every report of the simulation. Returns what ends it. */
  listen(heard: (state: SimulationState) => void): () => void {
    this.#listeners.add(heard);
    return () => this.#listeners.delete(heard);
  }

  #hearStage(message: FromStage): void {
    if (message.kind === 'drawn') this.state.drawMilliseconds = message.drawMilliseconds;
    else if (message.kind === 'tracked') this.tracked.value = message;
    else if (message.kind === 'shown') this.onShown?.(message.edit, message.at);
    else if (message.kind === 'lost') this.isLost.value = message.isLost;
    else if (message.kind === 'failed') this.failure.value = { sentence: message.sentence, isRestarted: false };
    else if (message.kind === 'refused') this.#questions.refuse(message.id, message.sentence);
    else this.#questions.answer(message.id, message);
  }

  /** Gets the assets an effect needs; null when all that can be had are here. */
  #prepare(effect: Effect): Promise<void> | null {
    const waits = [
      this.#assets.rigs.ensure(rigsOf(effect)),
      this.#assets.pictures.ensure(pictureHashes(effect)),
    ].filter((wait) => wait !== null);
    return waits.length > 0 ? Promise.all(waits).then(() => undefined) : null;
  }

  #problemsOf(effect: Effect): [string, AssetProblem | undefined][] {
    const { rigs, pictures } = this.#assets;
    return [
      ...rigsOf(effect).map((hash): [string, AssetProblem | undefined] => [hash, rigs.problem(hash)]),
      ...pictureHashes(effect).map((hash): [string, AssetProblem | undefined] => [hash, pictures.problem(hash)]),
    ];
  }
  #tellMissing(effect: Effect): void {
    const missing = new Map(
      this.#problemsOf(effect).flatMap(([hash, problem]) => (problem ? [[hash, problem.sentence]] : [])),
    );
    if ([...missing].toString() !== [...this.missing.value].toString()) this.missing.value = missing;
  }

  /** Asks again for what could not be had: of itself where it may have come meanwhile, or all of it. */
  #retryMissing(isFinalToo: boolean): void {
    if (!this.#told || this.missing.value.size === 0) return;
    this.#assets.rigs.retry(rigsOf(this.#told.effect), isFinalToo);
    this.#assets.pictures.retry(pictureHashes(this.#told.effect), isFinalToo);
  }
  retryMissing(): void {
    this.#retryMissing(true);
  }

  /**
   * Shows a document; only what it changes is computed again. Resolves once it, or a later one, is published. What cannot
   * be had is told in `missing`, the rest goes on. `transition` is the edit that led to it, where it is known.
   */
  edit(effect: Effect, budget: number, transition: Transition | null = null): Promise<void> {
    return this.#session.put({ effect, budget, transition });
  }

  /** The whole document with its assets as far as they are here. */
  #publish({ effect, budget, transition }: Shown, edit: number): void {
    this.#tellMissing(effect);
    const known = rigsOf(effect).filter((hash) => this.#assets.rigs.has(hash));
    const loaded = JSON.stringify([budget, thingsText(effect), known]);
    if (this.#told?.loaded !== loaded) this.#tellLoad(effect, budget, edit);
    else {
      // With what is linked into it taken in, or after an edit that was never shown, it is compared with what was told.
      const isNext = transition?.before === this.#told.effect && transition.after === effect;
      const changes = isNext ? transition.changes : diff(this.#told.effect, effect);
      this.#tell({ kind: 'edit', changes, edit });
    }
    this.#told = { effect, budget, edit, loaded };
    this.#showStage();
  }
  #tellLoad(effect: Effect, budget: number, edit: number): void {
    const rigs = rigsOf(effect).flatMap((hash): [string, Uint8Array][] => {
      const asset = this.#assets.rigs.get(hash);
      return asset ? [[hash, asset.bytes]] : [];
    });
    this.#tell({ kind: 'load', effect, rigs, budget, edit });
  }

  #showStage(): void {
    const { effect, edit } = this.#told!;
    this.#feed.show(effect, edit);
    this.rigs.value = this.#feed.rigs;
    this.meshes.value = this.#feed.meshes;
  }

  /** Shows the effect raw, or dimmed, or a step of a look alone, or as it is. */
  see(seen: Seen): void {
    this.#feed.see(seen);
    if (this.#told) this.#showStage();
  }

  #pace(): void {
    this.tellStage({ kind: 'pace', isPlaying: this.state.isPlaying, stepsPerSecond: 60 * this.state.speed });
  }

  /** The number of the last edit that was made. */
  get edits(): number {
    return this.#session.edits;
  }

  play(): void {
    this.#tell({ kind: 'play' });
  }
  pause(): void {
    this.#tell({ kind: 'pause' });
  }
  setSpeed(speed: number): void {
    this.state.speed = speed;
    this.#tell({ kind: 'speed', speed });
    this.#pace();
  }
  /** Steps on or back from where the playhead is, or is still on its way to. */
  stepBy(steps: number): void {
    const step = Math.max(0, (this.#wantedStep ?? this.state.step) + steps);
    const { letGoStep } = this.state;
    this.pause();
    // What was let go stays so, unless the step leads to before it was.
    this.seek(step, letGoStep !== null && step >= letGoStep ? letGoStep : undefined);
  }
  seek(step: number, letGoStep?: number): void {
    this.#wantedStep = step;
    this.#tell(letGoStep === undefined ? { kind: 'seek', step } : { kind: 'seek', step, letGoStep });
  }
  /** Plays from the beginning. */
  replay(): void {
    this.seek(0);
    this.play();
  }
  /** Goes to a place on the time sheet, in seconds; past the hold the effect is seen as let go after one turn of it. */
  seekSheet(stretches: Effect['stretches'], seconds: number): void {
    const clock = new EffectClock(stretches);
    const { opening, hold } = clock;
    const isClosing = hold > 0 && seconds > opening + hold;
    this.seek(clock.stepAt(seconds), isClosing ? clock.stepAt(opening + hold) : undefined);
  }
  /** A blow now from one place toward another: of the world, or seen from where a thing stands. */
  strike(from: Vector, to: Vector, beside: string | null): void {
    this.#tell({ kind: 'strike', from, to, beside });
  }
  /** Takes what came from outside elsewhere. */
  takeOutside(outside: Outside): void {
    this.#tell({ kind: 'outside', outside });
  }
  /** A signal of the effect, announced now. */
  announce(signal: string): void {
    this.#tell({ kind: 'announce', signal });
  }
  letGo(): void {
    this.#tell({ kind: 'letGo' });
  }

  startStage(canvas: HTMLCanvasElement | OffscreenCanvas, width: number, height: number): void {
    const offscreen = canvas instanceof OffscreenCanvas ? canvas : canvas.transferControlToOffscreen();
    this.tellStage({ kind: 'start', canvas: offscreen, width, height }, [offscreen]);
  }
  view(view: View): void {
    this.tellStage({ kind: 'camera', ...view });
  }
  /** Asks to hear of some of a frame's matrices, as they are drawn, in `tracked`. */
  track(matrices: number[]): void {
    this.tellStage({ kind: 'track', matrices });
  }
  /** While a layer's source or a force is dragged, the others stand at their fullest instant; null ends that. */
  compare(layerId: string | null): void {
    this.#tell({ kind: 'compare', layer: layerId });
  }
  show(view: StageView): void {
    this.tellStage({ kind: 'view', view });
  }
  /** Lays silhouettes of other instants over the present one, in seconds of the time sheet; none takes them away. */
  layInstants(seconds: number[]): void {
    this.#instantsId++;
    this.#instantSeconds = seconds;
    this.instants.value = 0;
    this.tellStage({ kind: 'forgetInstants' });
    this.#tell({ kind: 'instants', id: this.#instantsId, seconds });
  }
  #guides: [guides: Guide[], isShown: boolean] = [[], false];
  guides(guides: Guide[], isShown: boolean): void {
    this.#guides = [guides, isShown];
    this.tellStage({ kind: 'guides', guides, isShown });
  }

  hash(): Promise<{ step: number; hash: string | null }> {
    return this.#questions.ask('simulation', (id) => this.#tell({ kind: 'hash', id }));
  }
  inspect(
    layer: string,
  ): Promise<{ step: number; positions: Float32Array; ages: Float32Array; colours: Float32Array }> {
    return this.#questions.ask('simulation', (id) => this.#tell({ kind: 'inspect', id, layer }));
  }
  /** All the living of a layer, as the simulation stands. */
  census(layer: string): Promise<{ census: Census }> {
    return this.#questions.ask('simulation', (id) => this.#tell({ kind: 'census', id, layer }));
  }
  /** What each force does to a particle, as the simulation stands; null where that was given up for another question. */
  pulls(layer: string, key: number): Promise<{ step: number; pulls: readonly Pull[] | null }> {
    return this.#questions.ask('simulation', (id) => this.#tell({ kind: 'pulls', id, layer, key }));
  }
  /** The picture without guides, which come back at once. */
  barePixels(width: number, height: number): Promise<{ rgba: Uint8Array }> {
    const [guides, isShown] = this.#guides;
    this.tellStage({ kind: 'guides', guides: [], isShown: false });
    const bare = this.pixels(width, height);
    this.tellStage({ kind: 'guides', guides, isShown });
    return bare;
  }
  pixels(width: number, height: number): Promise<{ rgba: Uint8Array }> {
    return this.#questions.ask('stage', (id) => this.tellStage({ kind: 'pixels', id, width, height }));
  }

  /** Particles of a layer with some numbers, side by side; size 0 where the stage does not show it, or has no such step. */
  particlePictures(asked: ParticlePicturesAsked): Promise<{ rgba: Uint8Array; size: number }> {
    return this.#questions.ask('stage', (id) => this.tellStage({ kind: 'particlePictures', id, ...asked }));
  }
  /** Lights what has an age in the layers of those salts, and dims the rest; none ends that. */
  lightAge(salts: number[], age: number): void {
    this.tellStage({ kind: 'lightAge', salts, age });
  }

  /** What made a pixel of the stage, 0 to 1 from its left and its top; null while nothing is drawn. */
  pixel(x: number, y: number): Promise<{ pixel: ProbedPixel | null }> {
    return this.#questions.ask('stage', (id) => this.tellStage({ kind: 'pixel', id, x, y }));
  }
  /** What the layer of that salt gives to it after each step of its look. */
  pixelSteps(x: number, y: number, salt: number): Promise<{ steps: readonly PixelStep[] | null }> {
    return this.#questions.ask('stage', (id) => this.tellStage({ kind: 'pixelSteps', id, x, y, salt }));
  }

  timeDrawing(times: number): Promise<{ milliseconds: number[] }> {
    return this.#questions.ask('stage', (id) => this.tellStage({ kind: 'time', id, times }));
  }

  stop(): void {
    clearInterval(this.#retryTimer);
    globalThis.removeEventListener?.('online', this.#retryNow);
    this.#questions.close();
    this.#simulation.stop();
    this.#stage.stop();
  }
}
