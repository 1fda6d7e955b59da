import { MOST_CHANNELS } from '../../document/index.ts';
import { layout } from '../../kernels/index.ts';
import { draw, hash2, slotOf } from '../../maths/index.ts';
import type { EffectClock } from '../time/clock.ts';
import type { Releaser } from './3-release.ts';
import type { Population } from './population.ts';
import { newReading, type Reading, setTime } from '../values/reading.ts';
import type { Running } from './running.ts';
import type { Scene } from '../scene/scene.ts';
import {
  AT,
  CHANNELS,
  CHANNEL_MASK,
  CHANNEL_SHARE,
  COLOUR,
  COLOUR_SHARE,
  KEY,
  LINK_SALT,
  NORMAL,
  ORDINAL,
  PARENT_KEY,
  PARENT_SALT,
  SIZE,
  SIZE_SHARE,
  STEP,
  UNIT,
  UNITS,
  VELOCITY,
  type Inbox,
} from './inbox.ts';
import type { BoundLink, BoundBeam } from '../compile/plan.ts';

const SLOT_CHANCE = slotOf('link/chance');

/** Events of one particle in one step, at most, that are told apart. */
const EVENTS_A_STEP = 256;

export interface TellingStep {
  readonly step: number;
  readonly from: number;
  readonly to: number;
  readonly rate: number;
  readonly clock: EffectClock;
  readonly scene: Scene;
  readonly dials: Reading['dials'];
}

/** Tells the layers that links lead to what happened to a layer's particles in a step. Keeps its own room. */
export class Teller {
  readonly #reading = newReading();
  readonly #place = new Float64Array(3);
  readonly #normal = new Float64Array(3);
  readonly #colour = new Float64Array(3);
  readonly #matrix = new Float64Array(16);
  readonly #end = new Float64Array(3);
  readonly #back = new Float64Array(3);
  readonly #carried = new Float64Array(MOST_CHANNELS);
  #span = 0;
  #moment!: TellingStep;
  #running!: Running;

  /** To be called when the layer has moved and before its dead are cleared away. */
  tell(running: Running, inboxes: ReadonlyMap<string, Inbox>, moment: TellingStep, releaser: Releaser): void {
    const { links } = running.compiled;
    if (links.length > 0) {
      this.#running = running;
      this.#moment = moment;
      this.#reading.dials = moment.dials;
      this.#reading.channels = running.compiled.channels;
      this.#reading.around = running.compiled.around;
      for (const link of links) {
        const inbox = inboxes.get(link.to);
        if (!inbox) continue;
        if (link.on === 'birth') this.#births(link, inbox);
        else if (link.on === 'death') this.#deaths(link, inbox);
        else if (link.on === 'hit') {
          this.#hits(link, inbox);
          this.#arrivals(link, inbox);
        } else if (link.on === 'along') this.#along(link, inbox);
        else this.#releases(link, inbox, releaser);
      }
    }
    const { flags } = running.population;
    for (let n = 0; n < running.hits.count; n++) flags[running.hits.particle[n]!]! |= layout.HAS_HIT;
  }

  /** Share of the step in which a particle was born, 0 for one that was there before. */
  #bornAt({ birthStep, birthFraction }: Population, i: number): number {
    return birthStep[i] === this.#moment.step ? birthFraction[i]! : 0;
  }

  /** Writes where a particle is at a share of the step: on the straight way from its start to its end. */
  #placeAt(population: Population, i: number, share: number): void {
    const born = this.#bornAt(population, i);
    const t = born < 1 ? Math.max(0, Math.min(1, (share - born) / (1 - born))) : 1;
    for (let axis = 0; axis < 3; axis++) {
      const a = population.from[axis]![i]!;
      const b = population.position[axis]![i]!;
      this.#place[axis] = a + (b - a) * t;
    }
    this.#normal.fill(0);
  }

  #births(link: BoundLink, inbox: Inbox): void {
    const { population } = this.#running;
    for (let i = population.newbornFrom; i < population.count; i++) {
      const share = population.birthFraction[i]!;
      this.#placeAt(population, i, share);
      this.#setOff(link, inbox, i, share, 0);
    }
  }

  #releases(link: BoundLink, inbox: Inbox, { freed, shares, count }: Releaser): void {
    for (let n = 0; n < count; n++) {
      this.#placeAt(this.#running.population, freed[n]!, shares[n]!);
      this.#setOff(link, inbox, freed[n]!, shares[n]!, 0);
    }
  }

  #deaths(link: BoundLink, inbox: Inbox): void {
    const { population, hits } = this.#running;
    const { step, from, to, clock } = this.#moment;
    let hit = 0;
    for (let i = 0; i < population.count; i++) {
      if (population.deathStep[i]! > step + 1 || population.isDead(i)) continue;
      const life = population.life[i]!;
      const lived = population.birthStep[i]! + population.birthFraction[i]! - step + life * this.#moment.rate;
      const natural = life > 0 ? lived : (clock.endsAt - from) / (to - from);
      while (hit < hits.count && hits.particle[hit]! < i) hit++;
      let last = -1;
      while (hit < hits.count && hits.particle[hit] === i) last = hit++;
      // Who died before its time died of what it met last, and lies there.
      const isByHit = natural > 1 && last >= 0;
      const share = isByHit ? hits.share[last]! : Math.max(0, Math.min(1, natural));
      this.#placeAt(population, i, isByHit ? 1 : share);
      if (isByHit) this.#normal.set(hits.where.subarray(last * 6 + 3, last * 6 + 6));
      this.#setOff(link, inbox, i, share, 0);
    }
  }

  #hits(link: BoundLink, inbox: Inbox): void {
    const { population, hits } = this.#running;
    let before = -1;
    let nth = 0;
    for (let n = 0; n < hits.count; n++) {
      const i = hits.particle[n]!;
      nth = i === before ? nth + 1 : 0;
      before = i;
      if (link.once && (nth > 0 || population.flags[i]! & layout.HAS_HIT)) continue;
      this.#place.set(hits.where.subarray(n * 6, n * 6 + 3));
      this.#normal.set(hits.where.subarray(n * 6 + 3, n * 6 + 6));
      const ordinal = (this.#moment.step - population.birthStep[i]!) * EVENTS_A_STEP + nth;
      this.#setOff(link, inbox, i, hits.share[n]!, ordinal);
    }
  }

  /** A beam hits what it reaches for, once, when it has come as far as that lies. */
  #arrivals(link: BoundLink, inbox: Inbox): void {
    const { population, compiled } = this.#running;
    const { beam } = compiled;
    if (!beam) return;
    const { step, from, to, rate } = this.#moment;
    this.#findBeam(beam, from);
    const before = this.#span;
    this.#findBeam(beam, to);
    for (let i = 0; i < population.count; i++) {
      if (population.isDead(i) || population.isHeld(i) || population.flags[i]! & layout.HAS_HIT) continue;
      const born = this.#bornAt(population, i);
      const lived = population.stepsLived(i, step);
      const last = Math.min(1, born + lifeSteps(population, i, rate) - lived);
      // How far it still has to go, at its birth or the start of the step, and at the end.
      if (!beam.speed.isConstant) population.readBirthInto(this.#reading, i, rate, this.#moment.clock);
      const speed = beam.speed.read(this.#reading);
      const begins = (lived / rate) * speed - (before + (this.#span - before) * born);
      const ends = ((lived + 1 - born) / rate) * speed - this.#span;
      if (speed > 0 && ends < 0) continue;
      const share =
        speed === 0 || begins >= 0 ? born : Math.min(0.99999, born + (-begins / (ends - begins)) * (1 - born));
      population.flags[i]! |= layout.HAS_HIT;
      if (share > last) continue;
      this.#place.set(this.#end);
      this.#normal.set(this.#back);
      this.#setOff(link, inbox, i, share, 0);
    }
  }

  /** Finds where a beam ends at a time, how long it is, and which way back it goes. */
  #findBeam({ from, to }: BoundBeam, time: number): void {
    const m = this.#matrix;
    const group = this.#running.compiled.group.matrix;
    this.#moment.scene.placeInto(m, from, time, group);
    for (let axis = 0; axis < 3; axis++) this.#back[axis] = m[12 + axis]!;
    this.#moment.scene.placeInto(m, to, time, group);
    let sum = 0;
    for (let axis = 0; axis < 3; axis++) {
      this.#end[axis] = m[12 + axis]!;
      this.#back[axis]! -= m[12 + axis]!;
      sum += this.#back[axis]! * this.#back[axis]!;
    }
    this.#span = Math.sqrt(sum);
    if (this.#span > 0) for (let axis = 0; axis < 3; axis++) this.#back[axis]! /= this.#span;
  }

  /** By a clock of each particle's own, which begins with its birth. */
  #along(link: BoundLink, inbox: Inbox): void {
    const { population } = this.#running;
    const { step, rate } = this.#moment;
    for (let i = 0; i < population.count; i++) {
      if (population.isDead(i) || population.isHeld(i)) continue;
      population.readBirthInto(this.#reading, i, rate, this.#moment.clock);
      this.#reading.key = hash2(population.key[i]!, link.salt);
      const every = link.every.read(this.#reading) * rate;
      const times = Math.floor(link.times.read(this.#reading) + 0.5);
      const born = this.#bornAt(population, i);
      // Steps lived at the start and at the end of this one.
      const lived = population.stepsLived(i, step);
      const until = Math.min(lived + 1 - born, lifeSteps(population, i, rate));
      for (let k = Math.ceil(lived / every); k * every < until && (times === 0 || k < times); k++) {
        const share = born + k * every - lived;
        this.#placeAt(population, i, share);
        this.#setOff(link, inbox, i, share, k);
      }
    }
  }

  /** Asks for the births of one event of particle `i`, at a share of the step. */
  #setOff(link: BoundLink, inbox: Inbox, i: number, share: number, ordinal: number): void {
    const { population, compiled } = this.#running;
    const { step, rate } = this.#moment;
    const reading = this.#reading;
    const parent = population.key[i]!;
    const event = hash2(hash2(parent, link.salt), ordinal);
    this.#readAt(i, share);
    reading.key = event;
    const chance = link.chance.read(reading);
    if (chance < 1 && draw(event, SLOT_CHANCE) >= chance) return;
    const count = Math.floor(link.count.read(reading) + 0.5);
    const velocity = link.velocity.read(reading);
    const colour = link.takesColour ? 1 : link.colour.read(reading);
    const sizeShare = link.size.read(reading);
    const channelShare = link.channels.read(reading);
    const passes = channelShare > 0 && link.both.length > 0;
    let size = 0;
    let mask = 0;
    if (colour > 0 || sizeShare > 0 || passes) size = this.#look(i);
    if (passes)
      for (const { id, n } of link.both) {
        this.#carried[n] = compiled.channels.read(id, reading);
        mask |= 1 << n;
      }
    for (let n = 0; n < count; n++) {
      const at = inbox.add();
      if (at < 0) return;
      const { rows } = inbox;
      const key = hash2(event, n);
      reading.key = key;
      const units = Math.floor((share + link.delay.read(reading) * rate) * UNITS);
      rows[at + STEP] = step + Math.floor(units / UNITS);
      rows[at + UNIT] = units - Math.floor(units / UNITS) * UNITS;
      rows[at + PARENT_SALT] = compiled.layer.salt;
      rows[at + PARENT_KEY] = parent;
      rows[at + LINK_SALT] = link.salt;
      rows[at + ORDINAL] = ordinal * 16384 + n;
      rows[at + KEY] = key;
      for (let axis = 0; axis < 3; axis++) {
        rows[at + AT + axis] = this.#place[axis]!;
        rows[at + VELOCITY + axis] = population.velocity[axis]![i]! * velocity;
        rows[at + NORMAL + axis] = this.#normal[axis]!;
        rows[at + COLOUR + axis] = this.#colour[axis]!;
      }
      rows[at + COLOUR_SHARE] = colour;
      rows[at + SIZE] = size;
      rows[at + SIZE_SHARE] = sizeShare;
      if (passes) rows.set(this.#carried, at + CHANNELS);
      rows[at + CHANNEL_MASK] = mask;
      rows[at + CHANNEL_SHARE] = channelShare;
    }
  }

  /** Sets the reading to the parent at a share of the step. */
  #readAt(i: number, share: number): void {
    const { population } = this.#running;
    const { step, from, to, rate, clock } = this.#moment;
    const reading = this.#reading;
    const time = from + (to - from) * share;
    setTime(reading, clock, time);
    population.readInto(reading, i, step, rate, clock.standingAge(time), clock.length);
    const life = population.life[i]!;
    const born = population.birthStep[i]! + population.birthFraction[i]!;
    if (life > 0) reading.age = Math.max(0, Math.min(1, (step + share - born) / rate / life));
    [reading.x, reading.y, reading.z] = [this.#place[0]!, this.#place[1]!, this.#place[2]!];
  }

  /** Finds the parent's colour, and returns its size, as the reading has it. */
  #look(i: number): number {
    const { population, compiled } = this.#running;
    const reading = this.#reading;
    reading.key = reading.particle;
    compiled.colour.readInto(reading, this.#colour, population.tint, i);
    return compiled.numbers['life.size'].read(reading) * population.scale[i]!;
  }
}

/** How many steps a particle lives. */
const lifeSteps = ({ life }: Population, i: number, rate: number): number =>
  life[i]! > 0 ? life[i]! * rate : Infinity;
