import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { playAlone, SIMULATION } from '../../simulation/index.ts';
// @ts-expect-error it is plain JavaScript, for whoever reads it without Jinx
import { play } from '../../../docs/reading/sprite.mjs';
import { fieldsText } from './fields.ts';
import { leastEffect } from './least.ts';
import { stood } from './particles.ts';
import { contractVectors } from './vectors.ts';

const docs = (file: string) => readFileSync(new URL(`../../../docs/${file}`, import.meta.url), 'utf8');

describe('another reading of the contract', () => {
  it.each([1, 2, 77])('of one layer of sprites under three forces has the same bits, with seed %d', (seed) => {
    const effect = leastEffect(seed);
    const world = playAlone(effect, new Map());
    for (const step of [1, 30, 61, 150]) {
      world.advance(step);
      const ours = stood(world);
      expect((play as (effect: unknown, step: number) => unknown)(effect, step)).toEqual(ours);
      expect(ours.length).toBeGreaterThan(step === 1 ? 1 : 50);
    }
  });
});

describe('what is published of the contract', () => {
  it('has every setting as it is declared', () => expect(docs('fields.md')).toBe(fieldsText()));
  it('has vectors that are computed so', () => {
    const kept = JSON.parse(docs('vectors.json')) as Record<string, unknown>;
    expect(kept['simulation']).toBe(SIMULATION);
    // As JSON has them: it knows no −0.
    const computed = JSON.parse(JSON.stringify(contractVectors())) as Record<string, unknown>;
    for (const [name, vectors] of Object.entries(computed)) expect(kept[name], name).toEqual(vectors);
  });
});
