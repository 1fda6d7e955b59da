import { expect, it } from 'vitest';
import { startThreads } from './early';
import { Told } from './testing/told';
import type { Threads } from './threads';

const NO_BYTES = new Uint8Array();
type Kernels = Awaited<ReturnType<Threads['kernels']>>;

function setUp(kernels: (time: number) => Promise<Kernels>) {
  const made: Told[] = [];
  const make = () => {
    made.push(new Told());
    return made.at(-1)!;
  };
  let times = 0;
  const threads = startThreads({
    simulation: make,
    helper: make,
    stage: make,
    instants: make,
    kernels: () => kernels(times++),
  });
  return { threads, made, asked: () => times };
}
const HERE = () => Promise.resolve<Kernels>({ shared: NO_BYTES, plain: NO_BYTES });

it('gives each thread that has begun once, then others', () => {
  const { threads, made } = setUp(HERE);
  const [simulation, helper] = made;
  expect(threads.simulation()).toBe(simulation);
  expect(threads.helper()).toBe(helper);
  expect(threads.simulation()).not.toBe(simulation);
  expect(made).toHaveLength(3);
});

it('gives another in place of one that has ended before it was asked for', () => {
  const { threads, made } = setUp(HERE);
  made[0]!.fail('not loaded');
  expect(threads.simulation()).toBe(made[2]);
});

it('asks for the kernels once, and again where they could not be had', async () => {
  const whole = setUp(HERE);
  await whole.threads.kernels();
  expect(whole.asked()).toBe(1);
  const broken = setUp((time) => (time === 0 ? Promise.reject(new Error('offline')) : HERE()));
  await expect(broken.threads.kernels()).resolves.toEqual(await HERE());
  expect(broken.asked()).toBe(2);
});
