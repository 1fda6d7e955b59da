import { beforeAll, describe, expect, it } from 'vitest';
import { withItem } from '@jinx/core/document';
import { parcelOf, writeParcel } from '@jinx/core/formats';
import { playAlone, type Inputs } from '@jinx/core/simulation';
import { kernelBytes } from '../../core/testing/kernelBytes.ts';
import { lamp } from '../testing/lamp.ts';
import { playableParcel, type PlayableParcel } from './parcels.ts';
import { Playings } from './playings.ts';

const kernels = kernelBytes();
let parcel: PlayableParcel;
beforeAll(async () => {
  parcel = playableParcel(await writeParcel(parcelOf(lamp(), [], 'Fenlight only')));
});
const start = () => new Playings({ kernels, isShared: false, join: null, leave: () => undefined });
const alone = (step: number, inputs: Inputs = {}, effect = lamp()) => {
  const world = playAlone(effect, new Map(), inputs, { kernels });
  world.advance(step);
  return world.hash();
};
const advance = (playings: Playings, steps: number) => playings.world!.advance(playings.world!.step + steps);

describe('a parcel that is played', () => {
  it('says what its effects bring out', () => {
    expect(parcel.effects.map(({ info }) => info)).toMatchObject([
      {
        name: 'Lamp',
        licence: 'Fenlight only',
        hold: { kind: 'continuing', seconds: 1 },
        dials: [
          { name: 'Charge', kind: 'number', least: 0, most: 10 },
          { name: 'Flow', kind: 'number' },
        ],
        signals: ['Flash'],
      },
    ]);
  });

  it('has the bits of the bench, also when more and more come and the world grows', () => {
    const playings = start();
    const first = playings.begin(1, parcel, 0, {});
    advance(playings, 30);
    const worlds = new Set([playings.world]);
    for (let n = 2; n < 9; n++) {
      playings.begin(n, parcel, 0, { seed: n, at: [n, 0, 0] });
      worlds.add(playings.world);
    }
    expect(worlds.size).toBeGreaterThan(2);
    expect(first.instance.step).toBe(30);
    advance(playings, 15);
    expect(first.instance.hash()).toBe(alone(45));
    expect([...playings.all].map(({ instance }) => instance.step)).toEqual([45, 15, 15, 15, 15, 15, 15, 15]);
    for (let n = 2; n < 9; n++) playings.stop(n);
    expect(playings.world!.instances).toEqual([first.instance]);
  });

  it('goes back and on to any instant, and closes when it is let go', () => {
    const playings = start();
    const playing = playings.begin(1, parcel, 0, {});
    advance(playings, 90);
    playings.seek(playing, 20);
    expect([playing.instance.step, playing.instance.hash()]).toEqual([20, alone(20)]);
    advance(playings, 10);
    playings.letGo(playing);
    advance(playings, 5);
    expect(playing.instance.hash()).toBe(alone(35, { letGoStep: 30 }));
    playings.seek(playing, 200);
    expect(playing.instance.isOver).toBe(true);
    playings.restart(playing);
    advance(playings, 12);
    expect(playing.instance.hash()).toBe(alone(12));
  });

  it('turns its dials: dress at once, state from the next step on, and exactly as if it had stood there from the start', () => {
    const playings = start();
    const playing = playings.begin(1, parcel, 0, { dials: { Charge: 10 } });
    const withCharge = (value: number) => {
      const effect = lamp();
      Object.assign(effect.dials.byId['size']!, { value });
      return effect;
    };
    advance(playings, 40);
    expect(playing.instance.hash()).toBe(alone(40, {}, withCharge(10)));
    playings.setDial(playing, 'Charge', 0);
    expect(playing.instance.hash()).toBe(alone(40, {}, withCharge(0)));
    const { living } = playing.instance;
    playings.setDial(playing, 'Flow', 0);
    advance(playings, 40);
    expect(playing.instance.living).toBeLessThan(living / 2);
    expect(() => playings.setDial(playing, 'Flew', 0)).toThrow('"Lamp" has no dial "Flew"');
    expect(() => playings.setDial(playing, 'Flow', true)).toThrow(/is a number/);
  });

  it('takes places in the world of the page, wherever it was put itself', async () => {
    const effect = lamp();
    const motes = effect.layers.byId['motes']!;
    const hung = { offset: [0, 0, 0], turn: [0, 0, 0], keys: { order: [], byId: {} } } as const;
    motes.source = { kind: 'point', place: { ...structuredClone(hung), kind: 'dial', dial: 'p' } as never };
    motes.settings['motion.speed'].base = { kind: 'fixed', value: 0 };
    effect.dials = withItem(effect.dials, 'p', { kind: 'place', name: 'Target', at: [0, 0, 0] });
    const aimed = playableParcel(await writeParcel(parcelOf(effect, [])));
    const playings = start();
    const playing = playings.begin(1, aimed, 0, { at: [4, 0, 0], turn: [0, 90, 0], dials: { Target: [1, 2, 3] } });
    advance(playings, 10);
    const first = () => playing.instance.population('motes')!.position.map((axis) => axis[0]!);
    first().forEach((x, axis) => expect(x).toBeCloseTo([1, 2, 3][axis]!, 5));
  });

  it('draws effects of the same values alike, and others apart', () => {
    const playings = start();
    const all = [1, 2, 3].map((n) => playings.begin(n, parcel, 0, { dials: { Charge: n === 3 ? 1 : 2 } }));
    expect(all.map(({ instance }) => playings.world!.looksOf(instance))).toEqual([0, 0, 1]);
  });

  it('goes where it is put, and keeps only so many places behind', () => {
    const playings = start();
    const playing = playings.begin(1, parcel, 0, {});
    for (let n = 0; n < 1500; n++) {
      playings.place(playing, [n / 100, 0, 0], [0, 0, 0]);
      advance(playings, 1);
    }
    expect(playing.instance.places.length).toBeLessThanOrEqual(1201);
    const { count, position } = playing.instance.population('motes')!;
    const mean = position[0].slice(0, count).reduce((sum, x) => sum + x, 0) / count;
    expect(mean).toBeGreaterThan(14);
    expect(mean).toBeLessThan(15.2);
  });
});
