import { beforeEach, expect, it, vi } from 'vitest';
import { ApiError } from '../api';
import { Cancelled, type Watch } from './sending';
import { dismiss, upload, uploads } from './uploads';

interface Sending extends Watch {
  readonly answer: (value: string | null) => void;
  readonly fail: (error: Error) => void;
}
let sendings: Record<string, Sending> = {};
const file = (name: string) => new File(['abc'], name);
/** Begins to send a file; what the server would do is decided by the test. */
const begin = (name: string) =>
  upload(
    file(name),
    (watch) =>
      new Promise<string | null>((answer, fail) => {
        sendings[name] = { ...watch, answer, fail };
        watch.signal.addEventListener('abort', () => fail(new Cancelled()));
      }),
  );
const rows = () => uploads.map(({ name, state }) => `${name} ${state}`);
const turn = () => new Promise((later) => setTimeout(later, 0));

beforeEach(() => {
  vi.useRealTimers();
  sendings = {};
  for (const { id } of [...uploads]) dismiss(id);
});

it('two files are sent at once, the others wait, and each says how far it is', async () => {
  const all = ['a.glb', 'b.glb', 'c.png'].map(begin);
  await turn();
  expect(rows()).toEqual(['a.glb sending', 'b.glb sending', 'c.png waiting']);
  sendings['a.glb']!.progress(0.4);
  expect(uploads[0]!.sent).toBe(0.4);
  sendings['a.glb']!.progress(1);
  expect(rows()[0]).toBe('a.glb reading');
  sendings['a.glb']!.answer('A');
  await turn();
  await turn();
  expect(rows()).toEqual(['a.glb done', 'b.glb sending', 'c.png sending']);
  sendings['b.glb']!.answer('B');
  sendings['c.png']!.answer('C');
  expect(await Promise.all(all)).toEqual(['A', 'B', 'C']);
});

it('one that is cancelled goes, whether it is sent or waits, and the next takes its turn', async () => {
  const all = ['a.glb', 'b.glb', 'c.png', 'd.png'].map(begin);
  await turn();
  uploads.find(({ name }) => name === 'c.png')!.cancel();
  uploads.find(({ name }) => name === 'a.glb')!.cancel();
  await turn();
  await turn();
  expect(rows()).toEqual(['b.glb sending', 'd.png sending']);
  expect(sendings['c.png']).toBeUndefined();
  sendings['b.glb']!.answer('B');
  sendings['d.png']!.answer('D');
  expect(await Promise.all(all)).toEqual([null, 'B', null, 'D']);
});

it('a refusal stays with its sentence; what is asked elsewhere leaves no row; a fault is thrown on', async () => {
  const [refused, asked, broken] = ['a.glb', 'b.zip', 'c.glb'].map(begin);
  await turn();
  sendings['a.glb']!.fail(new ApiError(422, 'this is not a GLB file'));
  sendings['b.zip']!.answer(null);
  expect(await Promise.all([refused, asked])).toEqual([null, null]);
  await turn();
  expect(uploads.map(({ state, problem }) => [state, problem])[0]).toEqual(['failed', 'this is not a GLB file']);
  sendings['c.glb']!.fail(new Error('broken'));
  await expect(broken).rejects.toThrow('broken');
  expect(rows()).toEqual(['a.glb failed']);
});
