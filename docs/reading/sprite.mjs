// A reading of the runtime contract (docs/runtime.md), apart from Jinx's own code. It plays the least
// subset, one layer of sprites that is born at a point by a steady rate, under gravity, drag and a vortex, and must get the
// same bits. Whoever ports effects to another engine can begin with it.
import { draw, hash2 } from './maths.mjs';

const f = Math.fround;
const RATE = 60;
/** Instants are told apart to this share of a step. */
const SHARES = 65536;

/** A setting of numbers for the particle of a key: one value, or a spread that it draws from. */
function valueOf(settings, name, key, slot = name) {
  const { base } = settings[name];
  return base.kind === 'fixed' ? base.value : base.low + (base.high - base.low) * draw(key, slot);
}

/** e to the power of −80 to 0, in single precision. */
function exponential(x) {
  const n = f(Math.floor(f(f(x * f(1.44269504)) + 0.5)));
  const r = f(f(x - f(n * 0.693359375)) + f(n * f(0.00021219444)));
  let p = f(0.00019875691);
  for (const next of [0.0013981999, 0.008333452, 0.041665796, 0.16666665, 0.5]) p = f(f(p * r) + f(next));
  p = f(f(f(f(p * r) * r) + r) + 1);
  return f(p * new Float32Array(Int32Array.of((n + 127) << 23).buffer)[0]);
}

/** What a drag of k a second leaves over dt seconds: of the velocity, of it as a way, of an acceleration as a way. */
function decayOf(k, dt) {
  const x = Math.min(f(k * dt), 80);
  const kept = exponential(f(0 - x));
  const isSmall = x < f(0.05);
  const inverse = f(1 / k);
  const first = isSmall ? f(dt * f(1 - f(f(x * 0.5) * f(1 - f(x * f(0.33333334)))))) : f(f(1 - kept) * inverse);
  const second = isSmall ? f(f(dt * dt) * f(0.5 - f(x * f(0.16666667)))) : f(f(dt - first) * inverse);
  return { kept, first, second };
}

const dot = (a, b) => f(f(f(a[0] * b[0]) + f(a[1] * b[1])) + f(a[2] * b[2]));
const cross = (a, b) =>
  [0, 1, 2].map((n) => f(f(a[(n + 1) % 3] * b[(n + 2) % 3]) - f(a[(n + 2) % 3] * b[(n + 1) % 3])));

/** (1 − r² / reach²)², without a reach 1. */
function fade(squared, reach) {
  const left = Math.max(f(1 - f(squared * (reach > 0 ? f(1 / (reach * reach)) : 0))), 0);
  return f(left * left);
}

/** What a vortex adds to the acceleration at a place. */
function turned(force, place) {
  const number = (name) => f(force.settings[name].base.value);
  const axis = force.settings.axis.base.value.map(f);
  const softness = force.settings.softness.base.value;
  const off = place.map((x, n) => f(x - f(force.place.offset[n])));
  const round = cross(axis, off);
  const squared = dot(round, round);
  const weight = fade(squared, force.settings.reach.base.value);
  const over = f(weight / f(Math.sqrt(f(squared + f(softness * softness)))));
  const spin = f(number('strength') * over);
  const pull = f(number('pull') * over);
  const up = f(f(number('lift') * weight) + f(dot(off, axis) * pull));
  return [0, 1, 2].map((n) => f(f(f(round[n] * spin) - f(off[n] * pull)) + f(axis[n] * up)));
}

/** Births of a steady rate before a time of an effect that is held. */
const birthsBefore = (rate, time) => rate * time;

/**
 * Plays an effect that is held up to a step. Gives its living particles, in the order of their births: birth number, place
 * and velocity, metres and seconds.
 */
export function play(effect, toStep) {
  const [id] = effect.layers.order;
  const layer = effect.layers.byId[id];
  const forces = [...layer.forces.order].sort().map((name) => layer.forces.byId[name]);
  const lineage = hash2(effect.seed, layer.salt);
  const rate = layer.settings['births.rate'].base.value;
  const living = [];
  let numbered = 0;
  for (let step = 0; step < toStep; step++) {
    const [from, to] = [step / RATE, (step + 1) / RATE];
    // 1. Births, each at its own instant of the step.
    const [start, end] = [birthsBefore(rate, from), birthsBefore(rate, to)];
    for (let k = Math.ceil(start); k < end; k++) {
      const time = from + Math.floor(((k - start) / (end - start)) * SHARES) / (SHARES * RATE);
      const share = Math.min(0.99999, Math.max(0, (time - from) / (to - from)));
      const key = hash2(lineage, numbered);
      const way = layer.settings['motion.axis'].base.value;
      const speed = valueOf(layer.settings, 'motion.speed', key);
      living.push({
        number: numbered++,
        bornIn: step,
        share: f(share),
        seconds: f(valueOf(layer.settings, 'births.life', key)),
        place: layer.source.place.offset.map(f),
        velocity: way.map((x) => f(x * speed)),
      });
    }
    // 2. Forces, in the order of their ids: what all feel alike is summed by itself.
    let [alike, drag] = [[0, 0, 0], 0];
    for (const force of forces) {
      const strength = f(force.settings.strength.base.value);
      if (force.kind === 'gravity') alike = alike.map((x, n) => f(x + f(strength * [0, -1, 0][n])));
      if (force.kind === 'drag') drag = f(drag + strength);
    }
    for (const particle of living) {
      let sum = [0, 0, 0];
      for (const force of forces)
        if (force.kind === 'vortex') sum = turned(force, particle.place).map((x, n) => f(sum[n] + x));
      // 3. The integrator: drag is solved exactly, accelerations stand still through the step.
      const steps = f(step + 1 - particle.bornIn);
      const lived = f(Math.min(f(steps - particle.share), 1) * f(1 / RATE));
      const { kept, first, second } = decayOf(drag, lived);
      for (let n = 0; n < 3; n++) {
        const [v, a] = [particle.velocity[n], f(sum[n] + alike[n])];
        particle.place[n] = f(particle.place[n] + f(f(v * first) + f(a * second)));
        particle.velocity[n] = f(f(v * kept) + f(a * first));
      }
    }
    // 4. Deaths: of those that have lived their life when the next step begins.
    for (let n = living.length - 1; n >= 0; n--)
      if ((step + 1 - living[n].bornIn - living[n].share) / RATE >= living[n].seconds) living.splice(n, 1);
  }
  return living.map(({ number, place, velocity }) => ({ number, place, velocity }));
}
