import { expect, it } from 'vitest';
import { soon } from './soon.ts';

it('calls back in tasks of their own, in order', async () => {
  const called: string[] = [];
  soon(() => {
    called.push('first');
    void Promise.resolve().then(() => called.push('between'));
  });
  soon(() => called.push('second'));
  await Promise.resolve();
  expect(called).toEqual([]);
  await new Promise<void>((resolve) => soon(resolve));
  expect(called).toEqual(['first', 'between', 'second']);
});
