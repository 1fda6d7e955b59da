import { describe, expect, it } from 'vitest';
import { StageHub } from './stageHub';
import { Told } from './testing/told';

function setUp() {
  const workers: Told[] = [];
  const hub = new StageHub(() => {
    workers.push(new Told());
    return workers.at(-1)!;
  });
  const ended: string[] = [];
  const open = (name: string, isMain: boolean) => {
    const thread = hub.open(isMain);
    thread.onerror = () => void ended.push(name);
    return thread;
  };
  return { workers, hub, open, ended };
}
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

describe('the one worker of the stage', () => {
  it('hears all scenes, and is heard by the scene it speaks of', () => {
    const { workers, open } = setUp();
    const [main, other] = [open('main', true), open('other', false)];
    main.postMessage({ kind: 'edited' });
    other.postMessage({ kind: 'guides' });
    expect(workers).toHaveLength(1);
    const { orders } = workers[0]!;
    expect(orders.map(({ kind }) => kind)).toEqual(['open', 'open', 'tell', 'tell']);
    expect(orders.map(({ scene }) => scene)).toEqual([1, 2, 1, 2]);
    const heard: unknown[] = [];
    other.onmessage = ({ data }) => heard.push(data);
    workers[0]!.say({ scene: 2, message: 'seen' });
    workers[0]!.say({ scene: 1, message: 'not seen' });
    expect(heard).toEqual(['seen']);
  });

  it('goes on without a scene that is closed, and ends with the last', () => {
    const { workers, open } = setUp();
    const [one, two] = [open('one', false), open('two', false)];
    one.terminate();
    one.postMessage({ kind: 'edited' });
    expect(workers[0]!.orders.at(-1)).toEqual({ kind: 'close', scene: 1 });
    expect(workers[0]!.isEnded).toBe(false);
    two.terminate();
    expect(workers[0]!.isEnded).toBe(true);
  });

  it('is another where the main scene is another, and the others hear that theirs has ended', async () => {
    const { workers, open, ended } = setUp();
    const main = open('main', true);
    open('other', false);
    main.terminate();
    open('main again', true);
    await settled();
    expect(ended).toEqual(['other']);
    expect(workers).toHaveLength(2);
    expect(workers[0]!.isEnded).toBe(true);
    expect(workers[1]!.orders).toEqual([{ kind: 'open', scene: 3, isMain: true }]);
  });

  it('is not begun again by a scene that is closed with the main one', async () => {
    const { workers, open, ended } = setUp();
    const [main, other] = [open('main', true), open('other', false)];
    main.terminate();
    other.terminate();
    await settled();
    expect(ended).toEqual([]);
    expect(workers).toHaveLength(1);
  });

  it('begins with a canvas before the main scene is opened, which then has it', () => {
    const { workers, hub } = setUp();
    const canvas = { transferControlToOffscreen: () => 'offscreen' } as unknown as HTMLCanvasElement;
    hub.prepare(canvas);
    expect(workers[0]!.kinds()).toEqual(['open', 'start']);
    const main = hub.open(true);
    expect(main.canvas).toBe(canvas);
    expect(hub.open(false).canvas).toBeNull();
    const heard: unknown[] = [];
    main.onmessage = ({ data }) => heard.push(data);
    workers[0]!.say({ scene: 1, message: 'seen' });
    expect(heard).toEqual(['seen']);
    expect(workers).toHaveLength(1);
  });

  it('begins anew where what was prepared cannot draw, so that the page hears of it', () => {
    const { workers, hub } = setUp();
    hub.prepare({ transferControlToOffscreen: () => 'offscreen' } as unknown as HTMLCanvasElement);
    workers[0]!.say({ scene: 1, message: { kind: 'failed', sentence: 'No graphics.' } });
    expect(workers[0]!.isEnded).toBe(true);
    expect(hub.open(true).canvas).toBeNull();
    expect(workers).toHaveLength(2);
  });

  it('lets the main scene hear first that the worker has failed', async () => {
    const { workers, open, ended } = setUp();
    open('main', true);
    open('other', false);
    workers[0]!.fail('out of memory');
    await settled();
    expect(ended).toEqual(['main', 'other']);
  });
});
