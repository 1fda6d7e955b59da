import { describe, expect, it } from 'vitest';
import { atEffect, burst, collectionOf, setNumber } from '../../document/index.ts';
import type { Vec3 } from '../../maths/index.ts';
import { effectOf } from '../../testing/effects.ts';
import { BallBody } from './ball.ts';
import { Flight, type FlightShape } from '../scene/flight.ts';
import { Volley, type FlightHit } from './volley.ts';
import { playAlone } from '../world/world.ts';

const FROM: Vec3 = [0, 1.4, 0];
const TO: Vec3 = [0, 1, 8];
const straight: FlightShape = { speed: 10, arc: 0, homing: 0, spread: 0 };
const apart = (a: ArrayLike<number>, b: ArrayLike<number>) => Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!, a[2]! - b[2]!);
const placeOf = (flight: Flight, seconds: number, target: Vec3 = TO) => {
  const out = new Float64Array(3);
  flight.placeInto(out, seconds, target);
  return out;
};
const still = (): [Vec3, Vec3] => [TO, TO];
const ballAt = (at: Vec3, radius: number): BallBody =>
  new BallBody(
    (m) => m.set([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, ...at, 1]),
    () => radius,
    0,
  );

/** Runs a volley to its end at some step size, its target where `target` says. */
function hitsOf(volley: Volley, rate: number, target: (time: number) => Vec3, bodies: BallBody[] = []): FlightHit[] {
  const hits: FlightHit[] = [];
  for (let step = 0; step < rate * 4 && !volley.isOver; step++) {
    const [from, to] = [step / rate, (step + 1) / rate];
    for (const body of bodies) body.pose(from, to);
    hits.push(...volley.advance(from, to, [target(from), target(to)], bodies));
  }
  return hits;
}

describe('a flight', () => {
  it('goes from its place to its target at its speed, rising by its arc in the middle', () => {
    for (const arc of [0, 2]) {
      const flight = new Flight({ ...straight, arc }, FROM, TO, 7);
      expect(apart(placeOf(flight, 0), FROM)).toBeLessThan(1e-9);
      expect(apart(placeOf(flight, flight.seconds), TO)).toBeLessThan(1e-9);
      expect(placeOf(flight, flight.seconds / 2)[1]).toBeCloseTo(1.2 + arc, 6);
      let gone = 0;
      for (let k = 0; k < 1000; k++)
        gone += apart(
          placeOf(flight, (flight.seconds * k) / 1000),
          placeOf(flight, (flight.seconds * (k + 1)) / 1000),
        );
      expect(gone / flight.seconds).toBeCloseTo(10, 2);
    }
  });

  it('follows a target that moves by its homing', () => {
    const moved: Vec3 = [3, 1, 8];
    for (const homing of [0, 0.5, 1]) {
      const flight = new Flight({ ...straight, homing }, FROM, TO, 7);
      expect(placeOf(flight, flight.seconds, moved)[0]).toBeCloseTo(3 * homing, 9);
    }
  });

  it('leaves within its spread, each by another way, and all come together again', () => {
    const flights = Array.from({ length: 40 }, (_, n) => new Flight({ ...straight, spread: 30 }, FROM, TO, n * 77));
    const angles = flights.map((flight) => {
      const p = placeOf(flight, flight.seconds / 1000);
      const way = [0, 1, 2].map((axis) => p[axis]! - FROM[axis]!);
      const dot = way.reduce((sum, x, axis) => sum + x * (TO[axis]! - FROM[axis]!), 0);
      return (Math.acos(dot / Math.hypot(...way) / apart(FROM, TO)) * 180) / Math.PI;
    });
    expect(Math.max(...angles)).toBeLessThan(30.1);
    expect(Math.max(...angles)).toBeGreaterThan(20);
    for (const flight of flights) expect(apart(placeOf(flight, flight.seconds), TO)).toBeLessThan(1e-9);
  });
});

describe('a volley', () => {
  it('ends in a hit each, at the target and at that very instant, whatever the step size', () => {
    for (const rate of [30, 60, 240]) {
      const volley = new Volley({ ...straight, arc: 1, spread: 20 }, FROM, TO, 5, 3, 0.1);
      const hits = hitsOf(volley, rate, () => TO);
      expect(hits.length).toBe(5);
      for (const { flight, time, at, isTarget } of hits) {
        expect(isTarget).toBe(true);
        expect(time).toBeCloseTo(0.1 + volley.flights[flight]!.seconds, 9);
        expect(apart(at, TO)).toBeLessThan(1e-9);
      }
      expect(hits.map(({ time }) => time)).toEqual(hits.map(({ time }) => time).sort((a, b) => a - b));
    }
  });

  it('meets what stands in its way first, on its near side, and goes no further', () => {
    const ball = ballAt([0, 1.2, 4], 0.5);
    const volley = new Volley(straight, FROM, TO, 1, 3, 0);
    const [hit, none] = hitsOf(volley, 60, () => TO, [ball]);
    expect(none).toBeUndefined();
    expect(hit!.isTarget).toBe(false);
    expect(apart(hit!.at, [0, 1.2, 4])).toBeCloseTo(0.5, 3);
    expect(hit!.normal[2]).toBeLessThan(-0.9);
    expect(volley.isFlying(0)).toBe(false);
    expect(volley.advance(2, 2.1, still(), [])).toEqual([]);
  });

  it('never slips through, however fast it is', () => {
    const ball = ballAt([0, 1.2, 4], 0.3);
    const volley = new Volley({ ...straight, speed: 2000 }, FROM, TO, 1, 3, 0);
    const [hit] = hitsOf(volley, 60, () => TO, [ball]);
    expect(hit!.isTarget).toBe(false);
  });

  it('finds a target that runs, when it homes in', () => {
    const running = (time: number): Vec3 => [3 * time, 1, 8];
    const [hit] = hitsOf(new Volley({ ...straight, homing: 1 }, FROM, TO, 1, 3, 0), 60, running);
    expect(apart(hit!.at, running(hit!.time))).toBeLessThan(1e-6);
    const [missed] = hitsOf(new Volley(straight, FROM, TO, 1, 3, 0), 60, running);
    expect(apart(missed!.at, running(missed!.time))).toBeGreaterThan(1);
  });
});

describe('an effect that is thrown', () => {
  it('rides on its flight from place to place, and stays where it lands', () => {
    const effect = effectOf((layer, whole) => {
      layer.source = { kind: 'point', place: atEffect() };
      setNumber(layer, 'births.rate', 0);
      setNumber(layer, 'births.life', 30);
      setNumber(layer, 'motion.speed', 0);
      setNumber(layer, 'motion.ride', 100);
      layer.bursts = collectionOf([['b', burst('opening', 0, 3)]]);
      whole.stage.carrier = { kind: 'flight', from: [0, 1.4, 0], to: [0, 1, 8], speed: 10, arc: 1 };
    });
    const flight = new Flight({ ...straight, arc: 1 }, FROM, TO, 0);
    const world = playAlone(effect, new Map());
    for (const step of [15, 30, 45, 120]) {
      world.advance(step);
      const { position } = world.population('motes')!;
      expect(
        apart(
          position.map(([x]) => x!),
          placeOf(flight, step / 60),
        ),
      ).toBeLessThan(1e-5);
    }
  });
});
