import { grown } from '../values/grown.ts';

/** Impacts of one layer's particles in one step, in order of particle, then of time. Kept from step to step. */
export class Hits {
  count = 0;
  /** Index of the particle. */
  particle = new Uint32Array(64);
  /** Share of the step. */
  share = new Float64Array(64);
  /** Speed toward the surface just before, m/s. */
  strength = new Float64Array(64);
  /** Place and normal: six numbers a hit. */
  where = new Float64Array(64 * 6);

  add(particle: number, share: number, strength: number, contact: Float64Array, at: number, normal: number): void {
    const n = this.count++;
    this.particle = grown(this.particle, this.count);
    this.share = grown(this.share, this.count);
    this.strength = grown(this.strength, this.count);
    this.where = grown(this.where, this.count * 6);
    this.particle[n] = particle;
    this.share[n] = share;
    this.strength[n] = strength;
    for (let axis = 0; axis < 3; axis++) {
      this.where[n * 6 + axis] = contact[at + axis]!;
      this.where[n * 6 + 3 + axis] = contact[normal + axis]!;
    }
  }
}
