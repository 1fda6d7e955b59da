import { expect, it } from 'vitest';
import { shallowRef, watchEffect } from 'vue';
import { keptComputed } from './keptComputed';

it('a kept value is another only when it says something else', () => {
  const layers = shallowRef([{ name: 'Motes', rate: 1 }]);
  const names = keptComputed(() => layers.value.map(({ name }) => ({ name })));
  let draws = 0;
  const stop = watchEffect(() => void (names.value, draws++), { flush: 'sync' });
  const first = names.value;
  layers.value = [{ name: 'Motes', rate: 2 }];
  expect(names.value).toBe(first);
  expect(draws).toBe(1);
  layers.value = [{ name: 'Embers', rate: 2 }];
  expect(names.value).toEqual([{ name: 'Embers' }]);
  expect(draws).toBe(2);
  stop();
});
