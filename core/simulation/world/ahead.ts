import type { EffectClock } from '../time/clock.ts';
import { DueList, type Travel } from '../run/due.ts';
import type { Population } from '../run/population.ts';
import { newReading, setTime, type Reading } from '../values/reading.ts';
import type { NumberReader } from '../values/numberReader.ts';
import type { Running } from '../run/running.ts';
import type { Scene } from '../scene/scene.ts';
import { beginTurn } from '../run/turns.ts';
import type { CompiledLayer, BoundLink } from '../compile/plan.ts';

/**
 * What lives at a step hangs on no more of the past than its own births and those of its parents. A group of layers that
 * hang together can therefore begin so far before a step, with nothing alive, and be at that step what a run from zero is:
 * as long as births before it are counted, for they give each particle its number, and none was ever refused.
 */

/** Steps before a step within which all must be computed that lives then; Infinity where no past is ever over. */
export function lookBackOf(kin: readonly Running[], rate: number): number {
  const layers = new Map(kin.map(({ compiled }) => [compiled.id, compiled]));
  const seconds = new Map<string, number>();
  // Every layer of a document stands at the same dials.
  const { dials } = kin[0]!.compiled;
  const secondsOf = (id: string): number => {
    const known = seconds.get(id);
    if (known !== undefined) return known;
    const before = linksTo(kin, id).map(({ link, from }) => longest(link.delay, dials) + secondsOf(from));
    const need = longestLife(layers.get(id)!) + Math.max(0, ...before);
    seconds.set(id, need);
    return need;
  };
  const need = Math.max(...kin.map(({ compiled }) => (isForgetful(compiled) ? secondsOf(compiled.id) : Infinity)));
  return Math.ceil(need * rate) + 2 * (kin.length + 1);
}

const linksTo = (kin: readonly Running[], id: string): { link: BoundLink; from: string }[] =>
  kin.flatMap(({ compiled }) =>
    compiled.links.flatMap((link) => (link.to === id ? [{ link, from: compiled.id }] : [])),
  );

/** The most that a number may come to. */
const longest = (reader: NumberReader, dials: Reading['dials']): number => Math.max(0, reader.bounds(dials)[1]);
const longestLife = ({ numbers, dials }: CompiledLayer): number => longest(numbers['births.life'], dials);
const isNothing = (reader: NumberReader): boolean => reader.isConstant && !(reader.high > 0);

/** Whether particles of a layer pass and leave nothing behind: none stands, none is held, none hangs on a hit from outside. */
function isForgetful({ layer, numbers, front, source }: CompiledLayer): boolean {
  const stands = !isNothing(numbers['births.standing']) || !isNothing(numbers['births.perArea']);
  return (
    !stands && front === null && source.eventsIn === undefined && !source.needsParents && layer.source.kind !== 'hits'
  );
}

/** Most that live at once of a layer that has nothing but standing particles; Infinity where others come and go. */
export function mostStanding({ compiled }: Running, isSetOff: boolean): number {
  const { numbers, bursts, source, layer, dials } = compiled;
  const comes = [numbers['births.rate'], numbers['births.perMetre']].some((reader) => !isNothing(reader));
  if (comes || isSetOff || bursts.length > 0 || layer.source.kind === 'hits') return Infinity;
  const perArea = longest(numbers['births.perArea'], dials);
  return longest(numbers['births.standing'], dials) + Math.ceil(perArea * source.area + 1);
}

/** What is counted of a layer on the way. */
interface Counted {
  readonly running: Running;
  readonly population: Pick<Population, 'numbered'>;
  readonly travel: Travel;
  turnStart: number;
  /** Births that are due in each step. */
  readonly due: number[];
  /** As it stood at the step it is to begin at. */
  start: { numbered: number; metres: number; turnStart: number };
}

interface Moment {
  readonly clock: EffectClock;
  readonly scene: Scene;
  readonly dials: Reading['dials'];
  readonly seed: number;
}

/** Counts the births of a group up to a step, a slice at a time, so that it can begin shortly before that step. */
export class Ahead {
  readonly startStep: number;
  readonly toStep: number;
  readonly #layers: readonly Counted[];
  readonly #moment: Moment;
  readonly #due = new DueList();
  readonly #reading = newReading();
  readonly #firstStep: number;
  #step: number;

  constructor(kin: readonly Running[], firstStep: number, lookBack: number, toStep: number, moment: Moment) {
    this.#firstStep = this.#step = firstStep;
    this.toStep = toStep;
    this.startStep = toStep - lookBack;
    this.#moment = moment;
    this.#reading.dials = moment.dials;
    this.#layers = kin.map((running) => ({
      running,
      population: { numbered: 0 },
      travel: { metres: 0 },
      turnStart: 0,
      due: [],
      start: { numbered: 0, metres: 0, turnStart: 0 },
    }));
  }

  /** Whether it was made for these layers as they are. */
  isFor(kin: readonly Running[]): boolean {
    return (
      kin.length === this.#layers.length &&
      kin.every(
        ({ compiled }, n) => compiled === this.#layers[n]!.running.compiled && kin[n] === this.#layers[n]!.running,
      )
    );
  }

  /** Goes on until all is counted, or `isCancelled` says so. Returns whether all is. */
  advance(isCancelled?: () => boolean): boolean {
    const { clock, scene, seed } = this.#moment;
    for (; this.#step < this.toStep; this.#step++) {
      if (this.#step % 16 === 0 && isCancelled?.()) return false;
      const from = clock.timeOf(this.#step);
      const to = clock.timeOf(this.#step + 1);
      const moves = this.#layers.some(({ running }) => !isNothing(running.compiled.numbers['births.perMetre']));
      if (moves) scene.pose(from, to);
      for (const counted of this.#layers) {
        const { compiled } = counted.running;
        beginTurn(counted, { clock, from });
        if (this.#step === this.startStep)
          counted.start = {
            numbered: counted.population.numbered,
            metres: counted.travel.metres,
            turnStart: counted.turnStart,
          };
        setTime(this.#reading, clock, from);
        const isFirst = this.#step === this.#firstStep;
        if (compiled.source.canBear)
          this.#due.collect(compiled, this.#reading, { from, to, isFirst, clock, seed }, counted.travel);
        else this.#due.count = 0;
        counted.due.push(this.#due.count);
        counted.population.numbered += this.#due.count;
      }
    }
    return true;
  }

  /** Whether there was room for every birth at any time, so that none was refused. To be asked when all is counted. */
  get hadRoom(): boolean {
    const { rate } = this.#moment.clock;
    return this.#layers.every(({ running: { compiled, population } }) => {
      const most = this.#mostBorn(compiled.id, Math.ceil(longestLife(compiled) * rate) + 2);
      const atOnce = this.#mostBorn(compiled.id, 1);
      // The dead may keep up to a sixteenth of the places for a while.
      return most <= population.cap && (most * 16) / 15 + atOnce + 1 <= population.places;
    });
  }

  /** The most births of a layer, its own and those set off in it, in any so many steps on end. */
  #mostBorn(id: string, steps: number): number {
    const { clock, dials } = this.#moment;
    const { rate } = clock;
    const counted = this.#layers.find(({ running }) => running.compiled.id === id)!;
    const kin = this.#layers.map(({ running }) => running);
    const setOff = linksTo(kin, id).map(({ link, from }) => {
      const parent = this.#layers.find(({ running }) => running.compiled.id === from)!.running.compiled;
      const isOnce = link.on === 'birth' || link.on === 'death' || link.on === 'release' || link.once;
      const events = isOnce ? 1 : mostTimes(link, dials);
      const lasts = Math.ceil((longest(link.delay, dials) + longestLife(parent)) * rate) + 2;
      const count = longest(link.count, dials);
      return count * events === 0 ? 0 : count * events * this.#mostBorn(from, steps + lasts);
    });
    return mostIn(counted.due, steps) + setOff.reduce((sum, born) => sum + Math.ceil(born), 0);
  }

  /** Lets the group begin where it was counted up to. */
  place(): void {
    for (const { running, start } of this.#layers) {
      const { population, inbox, travel, hits } = running;
      population.empty();
      inbox.empty();
      hits.count = 0;
      population.numbered = population.born = population.dead = start.numbered;
      travel.metres = start.metres;
      running.turnStart = start.turnStart;
      running.at = this.startStep;
      running.exactFrom = this.toStep;
      running.isExact = true;
    }
  }
}

/** How often a link sets off births along the way of one particle, at most. */
function mostTimes({ times }: BoundLink, dials: Reading['dials']): number {
  const [least, most] = times.bounds(dials);
  return least > 0 ? most : Infinity;
}

/** The largest sum of so many neighbours. */
function mostIn(counts: readonly number[], width: number): number {
  let sum = 0;
  let most = 0;
  for (let i = 0; i < counts.length; i++) {
    sum += counts[i]! - (i >= width ? counts[i - width]! : 0);
    most = Math.max(most, sum);
  }
  return most;
}
