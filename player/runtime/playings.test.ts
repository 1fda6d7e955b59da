import { beforeAll, describe, expect, it } from 'vitest';
import { collectionOf, withItem, withTier } from '@jinx/core/document';
import { parcelOf, writeParcel } from '@jinx/core/formats';
import { newFrame, playAlone, type Inputs } from '@jinx/core/simulation';
import { kernelBytes } from '../../core/testing/kernelBytes.ts';
import { lamp } from '../testing/lamp.ts';
import { playableParcel, type PlayableParcel } from './parcels.ts';
import type { Quality } from '../api.ts';
import { Playings } from './playings.ts';
import { Sight } from './sight.ts';

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

describe('quality', () => {
  const far = lamp();
  far.quality.tiers.low = { births: 20, keepsArea: false, lights: 1, joints: 50 };
  far.quality.distances = collectionOf([
    ['low', { beyond: 10, tier: 'low' }],
    ['gone', { beyond: 40, tier: 'none' }],
  ]);
  const sightFrom = (metres: number, quality: Quality = 'high') => {
    const sight = new Sight();
    sight.quality = quality;
    sight.look({ position: [0, 1, metres], target: [0, 1, 0], fieldOfView: 40 });
    return sight;
  };
  let played: PlayableParcel;
  beforeAll(async () => {
    played = playableParcel(await writeParcel(parcelOf(far, [])));
  });

  it('is what the page chooses, with the bits of the same tier on the bench', () => {
    const playings = start();
    const playing = playings.begin(1, played, 0, {}, sightFrom(5, 'low'));
    advance(playings, 40);
    expect(playing.instance.hash()).toBe(alone(40, {}, withTier(far, 'low')));
  });

  it('goes down as the camera goes away: fewer are born, and then nothing is drawn', () => {
    const playings = start();
    const playing = playings.begin(1, played, 0, {}, sightFrom(5));
    advance(playings, 60);
    const { living } = playing.instance;
    expect(playings.look(sightFrom(20))).toBe(true);
    expect(playing).toMatchObject({ tier: 'low', isCulled: false });
    advance(playings, 200);
    expect(playing.instance.living).toBeLessThan(living / 2);
    const drawn = () => {
      const frame = newFrame(playing.instance);
      playings.world!.writeFrame(frame);
      return frame.particles;
    };
    expect(drawn()).toBeGreaterThan(0);
    playings.look(sightFrom(60));
    expect(playing).toMatchObject({ tier: 'none', isCulled: true });
    expect(drawn()).toBe(0);
    playings.look(sightFrom(5));
    advance(playings, 100);
    expect(playing.instance.living).toBeGreaterThan(living / 2);
    expect(drawn()).toBe(playing.instance.living);
  });
});
