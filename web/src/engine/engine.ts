import type { StageRigs } from '@jinx/core/checks';
import { diff, type Effect, type Transition } from '@jinx/core/document';
import { wholeOf } from '@jinx/core/editing';
import type { Rig } from '@jinx/core/geometry';
import { SceneFeed, thingsText, type Seen } from '@jinx/player/scene';
import type { FromSimulation, Outside } from '@jinx/player/simulation';
import type { FromStage, Tracked } from '@jinx/stage';
import { shallowRef } from 'vue';
import { EngineAssets } from './engineAssets';
import { Playback } from './playback';
import { Restarts } from './restarts';
import { EditSession } from './session';
import { SimulationClient } from './simulationClient';
import { begunSources, SharedByPage } from './shared';
import { StageClient } from './stageClient';

/** How often assets that could not be had are asked for again. */
const RETRY_MILLISECONDS = 10_000;

/** A document with the budget it is computed within. */
interface Shown {
  readonly effect: Effect;
  readonly budget: number;
  /** The edit that led to it; null where it is not known. */
  readonly transition: Transition | null;
}

/** What went wrong with a part of the engine, and whether it has been started again. */
export interface EngineFailure {
  readonly sentence: string;
  /** False where it stands still until somebody starts it again. */
  readonly isRestarted: boolean;
}

/**
 * The page's hold on its two workers, the simulation and the stage: brings a document and its assets to both, and starts
 * again what ended. Frames go from one to the other through shared memory and never pass through here.
 */
export class Engine {
  readonly shared: SharedByPage;
  readonly simulation: SimulationClient;
  readonly stage: StageClient;
  readonly playback: Playback;
  readonly assets: EngineAssets;
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
  /** The rigs of the things on the stage, by the id of the thing. */
  readonly rigs = shallowRef<StageRigs>(new Map());
  /** Every mesh the effect uses, by the hash of its asset. */
  readonly meshes = shallowRef<ReadonlyMap<string, Rig>>(new Map());
  /** Blows and signals that came from outside, as far as they are still told of. */
  readonly outside = shallowRef<Outside>({ strikes: [], signals: [] });
  #setPictured = (): void => undefined;
  /** There once the first picture is drawn. */
  readonly pictured = new Promise<void>((done) => (this.#setPictured = done));
  /** Hears of each edit as it is drawn: its number, and when by the system's clock. */
  onShown: ((edit: number, at: number) => void) | null = null;
  readonly #session: EditSession<Shown>;
  readonly #feed: SceneFeed;
  readonly #restarts = new Restarts();
  readonly #retryTimer: ReturnType<typeof setInterval>;
  readonly #retryNow = () => this.#told && this.assets.retry(this.#told.effect, false);
  readonly #unlisten: () => void;
  #instantsId = 0;
  #instantSeconds: number[] = [];
  /** The document that the simulation was told last, whole, and what it was computed with. */
  #told: (Omit<Shown, 'transition'> & { edit: number; loaded: string }) | null = null;

  /** Another one may be there beside the main one, whose picture goes first. */
  constructor(shared = new SharedByPage(begunSources()), isMain = true) {
    this.shared = shared;
    this.assets = new EngineAssets(shared);
    this.#unlisten = shared.listenForLate(() => this.#session.again());
    this.#session = new EditSession({
      prepare: ({ effect }) => this.assets.prepare(wholeOf(effect).effect),
      publish: (shown, edit) => this.#publish({ ...shown, effect: wholeOf(shown.effect).effect }, edit),
    });
    this.simulation = new SimulationClient(shared.threads, {
      message: (message) => this.#hearSimulation(message),
      failed: (reason) => this.#failSimulation(reason),
    });
    this.stage = new StageClient(() => shared.stages.open(isMain), {
      message: (message) => this.#hearStage(message),
      failed: (reason) => this.#failStage(reason),
    });
    this.playback = new Playback(
      (order) => this.simulation.send(order),
      () => this.#pace(),
    );
    this.#feed = new SceneFeed(this.assets, (order) => this.stage.send(order));
    this.#retryTimer = setInterval(this.#retryNow, RETRY_MILLISECONDS);
    globalThis.addEventListener?.('online', this.#retryNow);
  }

  get state(): Playback['state'] {
    return this.playback.state;
  }
  /** The number of the last edit that was made. */
  get edits(): number {
    return this.#session.edits;
  }

  #hearSimulation(message: FromSimulation): void {
    if (message.kind === 'frames') this.stage.send(message);
    else if (message.kind === 'state') this.playback.hear(message.state);
    else if (message.kind === 'instant') this.#takeInstant(message);
    else if (message.kind === 'outside') this.outside.value = message.outside;
    else if (message.kind === 'failed') this.failure.value = { sentence: message.sentence, isRestarted: false };
  }
  #hearStage(message: FromStage): void {
    if (message.kind === 'drawn') this.state.drawMilliseconds = message.drawMilliseconds;
    else if (message.kind === 'tracked') this.tracked.value = message;
    else if (message.kind === 'shown') {
      this.#setPictured();
      this.onShown?.(message.edit, message.at);
    } else if (message.kind === 'lost') this.isLost.value = message.isLost;
    else if (message.kind === 'failed') this.failure.value = { sentence: message.sentence, isRestarted: false };
  }

  /** The document is kept here: other workers take it up where these ended. */
  #failSimulation(reason: string): void {
    const isRestarted = this.#restarts.mayRestart();
    this.failure.value = { sentence: `The simulation stopped: ${reason}`, isRestarted };
    if (isRestarted) this.#restartSimulation();
  }
  #restartSimulation(): void {
    this.simulation.restart();
    if (!this.#told) return;
    const { effect, budget, edit } = this.#told;
    this.#tellLoad(effect, budget, edit);
    this.simulation.takeOutside(this.outside.value);
    this.playback.resume();
    this.layInstants(this.#instantSeconds);
  }

  #failStage(reason: string): void {
    const isRestarted = this.#restarts.mayRestart();
    this.failure.value = { sentence: `The stage stopped: ${reason}`, isRestarted };
    if (isRestarted) this.#restartStage();
  }
  #restartStage(): void {
    this.stage.restart();
    this.simulation.send({ kind: 'frames' });
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

  /**
   * Shows a document; only what it changes is computed again. Resolves once it, or a later one, is published. What cannot
   * be had is told as missing, the rest goes on. `transition` is the edit that led to it, where it is known.
   */
  edit(effect: Effect, budget: number, transition: Transition | null = null): Promise<void> {
    return this.#session.put({ effect, budget, transition });
  }

  /** The whole document with its assets as far as they are here. */
  #publish({ effect, budget, transition }: Shown, edit: number): void {
    this.assets.check(effect);
    const known = this.assets.rigsOf(effect).map(([hash]) => hash);
    const loaded = JSON.stringify([budget, thingsText(effect), known]);
    if (this.#told?.loaded !== loaded) this.#tellLoad(effect, budget, edit);
    else {
      // With what is linked into it taken in, or after an edit that was never shown, it is compared with what was told.
      const isNext = transition?.before === this.#told.effect && transition.after === effect;
      const changes = isNext ? transition.changes : diff(this.#told.effect, effect);
      this.simulation.send({ kind: 'edit', changes, edit });
    }
    this.#told = { effect, budget, edit, loaded };
    this.#showStage();
  }
  #tellLoad(effect: Effect, budget: number, edit: number): void {
    this.simulation.send({ kind: 'load', effect, rigs: this.assets.rigsOf(effect), budget, edit });
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
  /** Asks again for everything that could not be had. */
  retryMissing(): void {
    if (this.#told) this.assets.retry(this.#told.effect, true);
  }

  #pace(): void {
    const { isPlaying, speed } = this.state;
    this.stage.send({ kind: 'pace', isPlaying, stepsPerSecond: 60 * speed });
  }

  /** Lays silhouettes of other instants over the present one, in seconds of the time sheet; none takes them away. */
  layInstants(seconds: number[]): void {
    this.#instantsId++;
    this.#instantSeconds = seconds;
    this.instants.value = 0;
    this.stage.send({ kind: 'forgetInstants' });
    this.simulation.send({ kind: 'instants', id: this.#instantsId, seconds });
  }
  #takeInstant({ id, buffer, share }: FromSimulation & { kind: 'instant' }): void {
    if (id !== this.#instantsId) return;
    this.instants.value++;
    this.stage.send({ kind: 'instant', buffer, share }, [buffer]);
  }

  stop(): void {
    this.#unlisten();
    clearInterval(this.#retryTimer);
    globalThis.removeEventListener?.('online', this.#retryNow);
    this.simulation.stop();
    this.stage.stop();
  }
}
