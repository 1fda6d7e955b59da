import type { Effect } from '@jinx/core/document';
import { EffectClock } from '@jinx/core/simulation';
import type { LayerCount, SimulationState, ToSimulation } from '@jinx/player/simulation';
import { shallowReactive } from 'vue';

const COUNTS_EVERY_MILLISECONDS = 250;

/** The playing as the page knows it: how it stands, and where it is told to go. */
export class Playback {
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
  readonly #send: (order: ToSimulation) => void;
  readonly #paceChanged: () => void;
  readonly #listeners = new Set<(state: SimulationState) => void>();
  #movedAt = -Infinity;
  #countsAt = -Infinity;
  /** Where the playhead was last sent, until it is there. */
  #wantedStep: number | null = null;

  /** `paceChanged` is called when it plays on or stands still, or another speed is set. */
  constructor(send: (order: ToSimulation) => void, paceChanged: () => void) {
    [this.#send, this.#paceChanged] = [send, paceChanged];
  }

  /** Takes a report of the simulation. */
  hear(report: SimulationState): void {
    const wasPlaying = this.state.isPlaying;
    this.#show(report);
    for (const heard of this.#listeners) heard(report);
    if (this.state.step === this.#wantedStep || this.state.isPlaying) this.#wantedStep = null;
    if (wasPlaying !== this.state.isPlaying) this.#paceChanged();
  }

  /**
   * While it plays, the playhead moves no more often than pictures are drawn: each time the page is painted anew, which
   * takes from drawing on a machine without a graphics card. Counts change slowly enough to be read, and at once when they
   * have become exact.
   */
  #show({ step, sheetTime, living, layers, stepMilliseconds, ...standing }: SimulationState): void {
    const isAtOnce = !standing.isPlaying || (standing.isExact && !this.state.isExact);
    Object.assign(this.state, standing);
    const now = performance.now();
    if (isAtOnce || now - this.#movedAt >= this.state.drawMilliseconds) {
      this.#movedAt = now;
      Object.assign(this.state, { step, sheetTime });
    }
    if (isAtOnce || now - this.#countsAt >= COUNTS_EVERY_MILLISECONDS) {
      this.#countsAt = now;
      Object.assign(this.state, { living, layers, stepMilliseconds });
    }
  }

  /** Hears every report of the simulation. Returns what ends it. */
  listen(heard: (state: SimulationState) => void): () => void {
    this.#listeners.add(heard);
    return () => this.#listeners.delete(heard);
  }

  play(): void {
    this.#send({ kind: 'play' });
  }
  pause(): void {
    this.#send({ kind: 'pause' });
  }
  setSpeed(speed: number): void {
    this.state.speed = speed;
    this.#send({ kind: 'speed', speed });
    this.#paceChanged();
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
    this.#send(letGoStep === undefined ? { kind: 'seek', step } : { kind: 'seek', step, letGoStep });
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
  letGo(): void {
    this.#send({ kind: 'letGo' });
  }

  /** Lets a simulation that begins anew play on, from where the one before it was. */
  resume(): void {
    const { step, letGoStep, isPlaying, speed } = this.state;
    this.#send({ kind: 'speed', speed });
    this.seek(this.#wantedStep ?? step, letGoStep ?? undefined);
    if (isPlaying) this.play();
  }
}
