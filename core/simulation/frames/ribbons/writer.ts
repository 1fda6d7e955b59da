import { RIBBON_SETTINGS, type Declaration, type Effect, type Ribbon } from '../../../document/index.ts';
import type { Dress } from '../dress.ts';
import type { Frame } from '../frame.ts';
import type { GroupFrame } from '../../scene/groups.ts';
import type { Scene } from '../../scene/scene.ts';
import { BeamWriter, distanceOf } from './beams.ts';
import { BladeTrack, SAMPLE_WORDS } from './blades.ts';
import {
  AGE,
  ARRIVES,
  COLOUR,
  Curve,
  FROM,
  IS_FIXED,
  LOT,
  METRES,
  POINT_WORDS,
  SIDE,
  TO,
  WIDTH,
  type Records,
} from './curve.ts';
import type { Trail } from '../../run/6-lay.ts';
import { RibbonLook } from './look.ts';
import { strandsInto } from './strands.ts';
import { Strip } from './strip.ts';
import { TrailDrawer } from './trails.ts';
import type { Drawn } from '../drawn.ts';
import type { DressMoment } from '../moment.ts';
import { ribbonNumber } from '../../looks/ribbonNumber.ts';
import type { Population } from '../../run/population.ts';
import type { Running } from '../../run/running.ts';
import type { NumberReader } from '../../values/numberReader.ts';
import { newReading, setTime } from '../../values/reading.ts';
import { RibbonProfile } from './profile.ts';

export interface RibbonMoment extends DressMoment {
  readonly scene: Scene;
}

/** A layer that is drawn as ribbons, with all that this needs. */
export interface DrawnRibbon {
  readonly drawn: Drawn;
  readonly ribbon: Ribbon;
  readonly dress: Dress;
  readonly group: GroupFrame;
  /** The layer's laid points, of a trail. */
  readonly trail: Trail | null;
  /** Records of the laid points, or of the layer's particles. */
  readonly records: Records;
  readonly count: number;
}

/** The numbers of a ribbon's settings, ready to be read. */
type Readers = Readonly<Record<string, NumberReader>>;

/** Writes the joints of every ribbon of a frame, layer after layer. */
export class RibbonWriter {
  readonly #curve = new Curve();
  readonly #strip = new Strip();
  readonly #look = new RibbonLook();
  readonly #trails = new TrailDrawer(this.#look);
  readonly #beams = new BeamWriter();
  readonly #readers = new Map<string, Readers>();
  readonly #profiles = new Map<string, RibbonProfile>();
  readonly #reading = newReading();
  readonly #tracks = new Map<string, BladeTrack>();
  readonly #now = new Float64Array(12);
  #frame!: Frame;
  #first = 0;
  #room = 0;
  #written = 0;

  /** The document or the clock has changed. */
  forget(): void {
    this.#readers.clear();
    this.#profiles.clear();
    this.#tracks.clear();
  }

  /**
   * Writes the ribbons of a layer from a joint of a frame on; returns how many joints they took. Where there is not room for
   * all, curves are cut less finely.
   */
  write(frame: Frame, first: number, room: number, shown: DrawnRibbon, effect: Effect, moment: RibbonMoment): number {
    this.#frame = frame;
    this.#first = first;
    this.#room = room;
    this.#written = 0;
    this.#curve.fineness = effect.quality.tiers[effect.quality.shown].joints / 100;
    this.#writeKind(shown, effect, moment);
    return this.#written;
  }

  #writeKind(shown: DrawnRibbon, effect: Effect, moment: RibbonMoment): void {
    const { ribbon, trail, records, dress, drawn, group } = shown;
    const readers = this.#readersOf(drawn.id, ribbon, effect, group);
    const profile = this.#profileOf(drawn.id, ribbon, effect);
    const { population } = (trail?.heads ?? drawn.running) as Running;
    this.#begin(dress, moment);
    if (ribbon.kind === 'trail') {
      if (!trail) return;
      const ribbons = this.#trails.group(trail);
      for (let n = 0; n < ribbons; n++) {
        const i = this.#trails.write(this.#curve, n, trail, records, dress, moment);
        if (i >= 0) this.#readParticle(population, i, moment);
        else this.#reading.key = this.#reading.particle = this.#trails.keyOf(n, trail);
        this.#put(true, profile);
      }
    } else if (ribbon.kind === 'strand') {
      const strands = Math.floor(readers['strands']!.read(this.#reading));
      const longest = readers['longest']!.read(this.#reading);
      strandsInto(this.#curve, records, population, strands, longest, () => this.#put(true, profile));
    } else if (ribbon.kind === 'blade') this.#blades(shown, ribbon, readers, profile, moment);
    else this.#beamsOf(shown, ribbon, readers, profile, moment);
  }

  /** Sets the reading to what all ribbons of a layer share at a moment. */
  #begin({ channels, around }: Dress, { clock, step, dials }: RibbonMoment): void {
    const reading = this.#reading;
    setTime(reading, clock, clock.timeOf(step));
    reading.dials = dials;
    reading.channels = channels;
    reading.around = around;
    reading.key = reading.particle = 0;
    reading.age = reading.speed = reading.distance = reading.along = 0;
    reading.life = 1;
    reading.begun = [];
  }

  #readParticle(population: Population, i: number, { step, rate, clock }: RibbonMoment): void {
    population.readInto(this.#reading, i, step, rate, clock.standingAge(clock.timeOf(step)), clock.length);
  }

  #readersOf(id: string, ribbon: Ribbon, effect: Effect, { scale }: GroupFrame): Readers {
    const known = this.#readers.get(id);
    if (known) return known;
    const names = Object.keys(ribbon.settings).filter(
      (name) => (RIBBON_SETTINGS[ribbon.kind] as Record<string, Declaration>)[name]!.value === 'number',
    );
    const made = Object.fromEntries(names.map((name) => [name, ribbonNumber(ribbon, name, effect, scale)]));
    this.#readers.set(id, made);
    return made;
  }

  #profileOf(id: string, ribbon: Ribbon, effect: Effect): RibbonProfile {
    const known = this.#profiles.get(id);
    if (known) return known;
    const made = new RibbonProfile(ribbon, effect);
    this.#profiles.set(id, made);
    return made;
  }

  /** Cuts the curve at hand and writes it as the particle of the reading shows it along its length. */
  #put(isSmooth: boolean, profile: RibbonProfile, keepsWidth = false): void {
    const curve = this.#curve;
    const room = this.#room - this.#written;
    curve.cut(isSmooth);
    if (curve.jointCount > room) curve.cut(false);
    const at = this.#frame.jointAt(this.#first + this.#written);
    const { f32 } = this.#frame;
    const count = this.#strip.write(f32, at, room, curve);
    profile.apply(f32, at, count, this.#reading, keepsWidth);
    this.#written += count;
  }

  /** Seconds of the effect's time at which a particle was born. */
  #bornAt({ population }: Drawn['running'], i: number, { clock, rate }: RibbonMoment): number {
    return clock.timeOf(population.birthStep[i]!) + population.birthFraction[i]! / rate;
  }

  #blades(
    shown: DrawnRibbon,
    ribbon: Extract<Ribbon, { kind: 'blade' }>,
    readers: Readers,
    profile: RibbonProfile,
    moment: RibbonMoment,
  ): void {
    const { drawn, dress, group } = shown;
    const { running } = drawn;
    const { step, rate, clock, scene } = moment;
    const known = this.#tracks.get(drawn.id);
    const track = known ?? new BladeTrack({ ...ribbon, group: group.matrix }, scene, clock);
    this.#tracks.set(drawn.id, track);
    const end = clock.timeOf(step);
    const was = this.#now;
    track.endsInto(was, 0, clock.timeOf(step - 1));
    for (let i = 0; i < running.population.count; i++) {
      if (running.population.isDead(i)) continue;
      this.#readParticle(running.population, i, moment);
      const lasts = readers['lasts']!.read(this.#reading);
      const born = this.#bornAt(running, i, moment);
      const begins = Math.max(born, end - lasts);
      const curve = this.#curve;
      curve.start();
      const add = (time: number, share: number, samples: Float64Array, o: number) => {
        const at = curve.add();
        const size = this.#look.dress(
          curve,
          at,
          Math.min(1, (end - time) / lasts),
          dress,
          moment,
          running.population,
          i,
        );
        const isNow = time > end - 1 / rate;
        let length = 0;
        for (let axis = 0; axis < 3; axis++) {
          const [a, b] = [samples[o + axis]!, samples[o + 3 + axis]!];
          curve.points[at + TO + axis] = (a + b) / 2;
          curve.points[at + FROM + axis] = isNow ? (was[axis]! + was[3 + axis]!) / 2 : (a + b) / 2;
          curve.points[at + SIDE + axis] = b - a;
          length += (b - a) * (b - a);
        }
        // As wide as the blade is long, times what the size has become over its age.
        const grown = size > 0 ? (curve.points[at + WIDTH]! * 2) / size : 1;
        curve.points[at + WIDTH] = (Math.sqrt(length) / 2) * grown;
        curve.points[at + IS_FIXED] = 1;
        curve.points[at + ARRIVES] = isNow && share > 0 ? share : 1;
        curve.points[at + METRES] = time - born;
      };
      const exact = (time: number) => {
        track.endsInto(was, 6, time);
        add(time, 1, was, 6);
      };
      if (begins >= end) continue;
      const firstStep = Math.floor(step - (end - begins) * rate);
      exact(begins);
      for (let at = firstStep; at < step; at++) {
        const samples = track.samplesOf(at, Math.floor(step - lasts * rate) - 1);
        for (let o = 0; o < samples.length; o += SAMPLE_WORDS) {
          const time = clock.timeOf(at) + samples[o]! / rate;
          if (time > begins && time < end) add(time, samples[o]!, samples, o + 1);
        }
      }
      exact(end);
      this.#put(false, profile);
    }
  }

  readonly #shape = { sag: 0, jag: 0, jagSize: 1, strikes: 0, branches: 0, branchLength: 0 };
  readonly #ends = {
    from: new Float64Array(3),
    to: new Float64Array(3),
    wasFrom: new Float64Array(3),
    wasTo: new Float64Array(3),
  };

  #beamsOf(
    shown: DrawnRibbon,
    ribbon: Extract<Ribbon, { kind: 'beam' }>,
    readers: Readers,
    profile: RibbonProfile,
    moment: RibbonMoment,
  ): void {
    const { drawn, dress, group } = shown;
    const { population } = drawn.running;
    const { step, rate, clock } = moment;
    const ends = this.#ends;
    const place = (out: Float64Array, where: 'from' | 'to', time: number) => {
      moment.scene.placeInto(MATRIX, ribbon[where], time, group.matrix);
      for (let axis = 0; axis < 3; axis++) out[axis] = MATRIX[12 + axis]!;
    };
    place(ends.from, 'from', clock.timeOf(step));
    place(ends.to, 'to', clock.timeOf(step));
    place(ends.wasFrom, 'from', clock.timeOf(step - 1));
    place(ends.wasTo, 'to', clock.timeOf(step - 1));
    const span = distanceOf(ends.from, ends.to);
    const shape = this.#shape;
    for (let i = 0; i < population.count; i++) {
      if (population.isDead(i)) continue;
      const seconds = population.stepsLived(i, step) / rate;
      population.readBirthInto(this.#reading, i, rate, clock);
      const speed = readers['speed']!.read(this.#reading);
      const strikes = readers['strikes']!.read(this.#reading);
      const reached = speed > 0 && span > 0 ? Math.min(1, (seconds * speed) / span) : 1;
      if (!(reached > 0)) continue;
      this.#begin(dress, moment);
      this.#readParticle(population, i, moment);
      for (const name of SHAPED_BEAM) shape[name] = readers[name]!.read(this.#reading);
      shape.strikes = strikes;
      const { age } = this.#reading;
      const key = population.key[i]!;
      const dressAll = (taper: boolean) => {
        const { points, count } = this.#curve;
        this.#look.dress(this.#curve, 0, age, dress, moment, population, i);
        for (let n = count - 1; n >= 0; n--) {
          const at = n * POINT_WORDS;
          points.copyWithin(at + COLOUR, COLOUR, AGE + 1);
          points.copyWithin(at + LOT, LOT, POINT_WORDS);
          if (taper) points[at + WIDTH]! *= 0.6 * (1 - n / count);
        }
      };
      this.#beams.mainInto(this.#curve, ends, shape, key, seconds, reached);
      dressAll(false);
      this.#put(shape.jag === 0, profile);
      for (let n = 0; n < Math.floor(shape.branches); n++)
        if (this.#beams.branchInto(this.#curve, n, ends, shape, key, seconds, reached)) {
          dressAll(true);
          this.#put(false, profile, true);
        }
    }
  }
}

const MATRIX = new Float64Array(16);
/** What of a beam's shape is read as it is now; how often it strikes is known at its birth. */
const SHAPED_BEAM = ['sag', 'jag', 'jagSize', 'branches', 'branchLength'] as const;
