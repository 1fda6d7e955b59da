import { layout, type Kernels } from '../../kernels/index.ts';
import { addDistance } from './distance.ts';
import { Midwife, type BirthStep } from './2-births.ts';
import { Releaser } from './3-release.ts';
import type { Scratch } from './memory.ts';
import type { Inbox } from './inbox.ts';
import { Teller } from './7-tell.ts';
import type { Mover, MovingStep } from './4-move.ts';
import type { Population } from './population.ts';
import { newReading } from '../values/reading.ts';
import { Laying, type Trail } from './6-lay.ts';
import { Rider, ridesAlong } from './1-ride.ts';
import type { Running } from './running.ts';
import type { Collider } from './5-collide.ts';
import { beginTurn } from './turns.ts';

/** A step as every layer sees it. */
export interface WorldStep extends MovingStep {
  /** What births beside must know; its room becomes less with every birth. */
  readonly births: BirthStep;
  readonly inboxes: ReadonlyMap<string, Inbox>;
}

/** Takes a layer through a step: docs/simulation.md tells the order. */
export class Stepper {
  readonly collider: Collider;
  readonly mover: Mover;
  readonly #kernels: Kernels;
  readonly #scratch: Scratch;
  readonly #midwife = new Midwife();
  readonly #rider = new Rider();
  readonly #releaser = new Releaser();
  readonly #laying = new Laying();
  readonly #teller = new Teller();
  readonly #reading = newReading();

  constructor(kernels: Kernels, scratch: Scratch, mover: Mover, collider: Collider) {
    this.#kernels = kernels;
    this.#scratch = scratch;
    this.mover = mover;
    this.collider = collider;
  }

  /** The document or the stage has changed. */
  forget(): void {
    this.mover.forget();
    this.#rider.forget();
  }

  /** `parent` are the particles that a layer is born on, where it is born on any. */
  step(running: Running, trails: readonly Trail[], parent: Population | undefined, moment: WorldStep): void {
    const { compiled, population } = running;
    const { step } = moment;
    this.#reading.dials = moment.dials;
    beginTurn(running, moment);
    // Where nothing moves particles before the forces do, those keep their places on the way.
    const isMovedBefore = compiled.front !== null || ridesAlong(compiled);
    if (isMovedBefore) population.keepPlaces();
    this.#rider.rideAlong(compiled, population, moment);
    // Who is born on another layer's particles draws from the living alone.
    parent?.compact(this.#kernels, this.#scratch.indicesAt, true);
    this.#midwife.giveBirth(running, moment.births, this.#reading);
    this.#releaser.count = 0;
    if (compiled.front) this.#releaser.release(running, compiled.front, this.#midwife, moment.births, this.#reading);
    this.collider.keepVelocities(compiled, population);
    this.mover.move(compiled, population, moment, isMovedBefore ? 0 : population.newbornFrom);
    this.collider.collide(compiled, population, running.hits, moment);
    endStanding(running, moment);
    // Where trails are laid, they count how far each has come.
    if (compiled.keepsDistance && trails.length === 0) addDistance(population, layout.IS_HELD);
    this.#lay(running, trails, moment);
    this.#teller.tell(running, moment.inboxes, moment, this.#releaser);
    this.#bury(running, step + 1);
    running.at = step + 1;
  }

  /** Lays the points of trails; those that move are moved, the newest with the rest. */
  #lay(running: Running, trails: readonly Trail[], moment: WorldStep): void {
    for (const { population: points } of trails) {
      points.keepPlaces();
      points.newbornFrom = points.evenTo = points.count;
    }
    this.#laying.lay(running, trails, moment);
    for (const trail of trails) {
      if (trail.bound.moves) this.mover.move(trail.compiled, trail.population, moment);
      this.#bury(trail, moment.step + 1);
      trail.at = moment.step + 1;
    }
  }

  #bury({ population }: Running, step: number): void {
    population.bury(this.#kernels, step, this.#scratch.indicesAt);
    population.compact(this.#kernels, this.#scratch.indicesAt);
  }
}

function endStanding({ compiled, population }: Running, { clock, step }: WorldStep): void {
  const time = clock.timeOf(step + 1);
  const isOver = time >= clock.endsAt;
  if (isOver || time >= compiled.window.until) population.endStanding(step + 1, isOver);
}
