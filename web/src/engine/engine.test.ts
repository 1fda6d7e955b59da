import { picture } from '@jinx/core/building';
import { collectionOf, newEffect, newLayer, type Effect } from '@jinx/core/document';
import { writePicture } from '@jinx/core/formats';
import { afterEach, describe, expect, it } from 'vitest';
import { ApiError } from '../api';
import { Engine } from './engine';
import { NoAnswer } from './calls';
import { SharedByPage } from './shared';
import { Told } from './testing/told';
import type { Threads } from './threads';

const NO_BYTES = new Uint8Array();
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));
const engines: Engine[] = [];
afterEach(() => engines.splice(0).forEach((engine) => engine.stop()));

type Kernels = Awaited<ReturnType<Threads['kernels']>>;
const HERE = () => Promise.resolve<Kernels>({ shared: NO_BYTES, plain: NO_BYTES });

function setUp(
  asset: (hash: string) => Promise<Uint8Array> = () => Promise.reject(new ApiError(404, 'no such asset')),
  kernels = HERE,
) {
  const made = { simulation: [] as Told[], helper: [] as Told[], stage: [] as Told[], instants: [] as Told[] };
  const make = (kind: keyof typeof made) => () => {
    const worker = new Told();
    made[kind].push(worker);
    return worker;
  };
  const threads = {
    simulation: make('simulation'),
    helper: make('helper'),
    stage: make('stage'),
    instants: make('instants'),
    kernels: () => kernels(),
  };
  const shared = new SharedByPage({ threads, asset });
  const engine = new Engine(shared);
  engines.push(engine);
  return { engine, shared, made, mendKernels: () => (kernels = HERE) };
}

/** An effect of one layer that shows a picture. */
function withPicture(hash: string, name = 'shown'): Effect {
  const effect = newEffect(name, 7);
  const layer = newLayer('motes', 1);
  layer.look = { kind: 'own', steps: collectionOf([['shows', picture(hash, 'reeds')]]) };
  effect.layers = collectionOf([['motes', layer]]);
  return effect;
}
const HASH = 'b'.repeat(64);
const STATE = {
  step: 90,
  sheetTime: 1.5,
  living: 3,
  layers: [],
  stepMilliseconds: 1,
  isExact: true,
  isPlaying: true,
  progress: 1,
  settled: 1,
  isLetGo: true,
  letGoStep: 60,
};

describe('the engine', () => {
  it('publishes an edit only after its picture, and no older one after a newer', async () => {
    let bring!: (bytes: Uint8Array) => void;
    const { engine, made } = setUp(() => new Promise((resolve) => (bring = resolve)));
    await engine.edit(newEffect('before', 7), 100);
    const older = engine.edit(withPicture(HASH, 'older'), 100);
    const newer = engine.edit({ ...withPicture(HASH, 'newer'), seed: 8 }, 100);
    await settled();
    const [simulation] = made.simulation;
    expect(simulation!.kinds()).toEqual(['start', 'load']);
    bring(writePicture({ width: 1, height: 1, rgba: new Uint8Array(4) }));
    await Promise.all([older, newer]);
    const edits = simulation!.orders.slice(2);
    expect(edits).toHaveLength(1);
    expect(JSON.stringify(edits[0])).toContain('newer');
    expect(edits[0]!['edit']).toBe(3);
    const stage = made.stage[0]!.kinds();
    expect(stage.lastIndexOf('pictures')).toBeLessThan(stage.lastIndexOf('layers'));
  });

  it('asks for a missing picture once, says that it is missing, and shows every edit without it', async () => {
    const asked: string[] = [];
    const { engine, made } = setUp((hash) => {
      asked.push(hash);
      return Promise.reject(new ApiError(404, 'no such asset'));
    });
    await engine.edit(withPicture(HASH), 100);
    for (let tick = 0; tick < 10; tick++) void engine.edit({ ...withPicture(HASH), seed: tick }, 100);
    await settled();
    expect(asked).toEqual([HASH]);
    expect([...engine.assets.missing.value]).toEqual([[HASH, 'no such asset']]);
    expect(made.simulation[0]!.kinds().filter((kind) => kind === 'edit')).toHaveLength(10);
  });

  it('says why the simulation could not be loaded, and starts with the document once asked to', async () => {
    const { engine, made, mendKernels } = setUp(undefined, () =>
      Promise.reject(new Error('the server answered 404.')),
    );
    await engine.edit(newEffect('kept', 7), 100);
    for (let turn = 0; turn < 9; turn++) await settled();
    expect(engine.failure.value).toEqual({
      sentence: 'The simulation stopped: the server answered 404.',
      isRestarted: false,
    });
    mendKernels();
    engine.restart();
    await settled();
    const last = made.simulation.at(-1)!;
    expect(engine.failure.value).toBeNull();
    expect(last.kinds().slice(0, 2)).toEqual(['start', 'load']);
    expect(JSON.stringify(last.orders[1])).toContain('kept');
  });

  it('starts a simulation that ended again, with the document, the instant and what came from outside', async () => {
    const { engine, made } = setUp();
    await engine.edit(newEffect('kept', 7), 100);
    await settled();
    const [first] = made.simulation;
    first!.say({ kind: 'outside', outside: { strikes: [], signals: [{ signal: 's', step: 3 }] } });
    first!.say({ kind: 'state', state: STATE });
    const question = engine.simulation.hash();
    first!.fail('out of memory');
    await expect(question).rejects.toBeInstanceOf(NoAnswer);
    await settled();
    expect(first!.isEnded).toBe(true);
    expect(made.helper[0]!.isEnded).toBe(true);
    expect(engine.failure.value).toEqual({ sentence: 'The simulation stopped: out of memory', isRestarted: true });
    const [, second] = made.simulation;
    expect(second!.kinds().slice(0, 6)).toEqual(['start', 'load', 'outside', 'speed', 'seek', 'play']);
    expect(second!.orders[4]).toMatchObject({ step: 90, letGoStep: 60 });
    expect(JSON.stringify(second!.orders[1])).toContain('kept');
    void engine.edit({ ...newEffect('kept', 7), name: 'changed after' }, 100);
    expect(JSON.stringify(second!.orders.at(-1))).toContain('changed after');
  });

  it('starts a stage that ended again, tells it all that still holds, and asks for another canvas', async () => {
    const { engine, made } = setUp();
    await engine.edit(withPicture(HASH), 100);
    engine.stage.view({ position: [0, 1, 4], target: [0, 1, 0], fieldOfView: 30, follows: true });
    const question = engine.stage.pixels(4, 4);
    made.stage[0]!.fail('the context is gone');
    await expect(question).rejects.toBeInstanceOf(NoAnswer);
    const told = made.stage[1]!.kinds();
    for (const kind of ['figures', 'layers', 'surround', 'lens', 'air', 'camera']) expect(told).toContain(kind);
    expect(told).not.toContain('pixels');
    expect(engine.stageRuns.value).toBe(1);
  });

  it('starts what fails over and over no more by itself', async () => {
    const { engine, made } = setUp();
    await engine.edit(newEffect('kept', 7), 100);
    await settled();
    for (let times = 0; times < 4; times++) {
      made.simulation.at(-1)!.fail('again');
      await settled();
    }
    expect(made.simulation).toHaveLength(4);
    expect(engine.failure.value).toMatchObject({ isRestarted: false });
    engine.restart();
    expect(made.simulation).toHaveLength(5);
  });

  it('rejects a question that is refused, and those still open when it is closed', async () => {
    const { engine, made } = setUp();
    await settled();
    const refused = engine.simulation.census('layer');
    const { id } = made.simulation[0]!.orders.at(-1)!;
    made.simulation[0]!.say({ kind: 'refused', id, sentence: 'no room' });
    await expect(refused).rejects.toThrow('no room');
    const open = engine.simulation.hash();
    engine.stop();
    await expect(open).rejects.toMatchObject({ isClosed: true });
  });

  it('plays when it is replayed, also from a pause', async () => {
    const { engine, made } = setUp();
    await settled();
    engine.playback.pause();
    engine.playback.replay();
    expect(made.simulation[0]!.orders.slice(-2)).toEqual([{ kind: 'seek', step: 0 }, { kind: 'play' }]);
  });

  it('stays let go when it is stepped on, and not when it is stepped back before that', async () => {
    const { engine, made } = setUp();
    await settled();
    made.simulation[0]!.say({ kind: 'state', state: { ...STATE, isPlaying: false } });
    const lastSeek = () => made.simulation[0]!.orders.filter(({ kind }) => kind === 'seek').at(-1)!;
    engine.playback.stepBy(1);
    expect(lastSeek()).toMatchObject({ step: 91, letGoStep: 60 });
    engine.playback.stepBy(-40);
    expect(lastSeek()).toEqual({ kind: 'seek', step: 51 });
  });
});
