import { existsSync } from 'node:fs';
import { STEP_KINDS, STEP_SETTINGS } from '@jinx/core/document';
import { expect, it } from 'vitest';
import { READY } from '@jinx/core/building';
import { SOURCE_KINDS } from '../acts/useSourceActs';
import { choicePicture, settingPicture } from './choicePictures';
import { readyPicture } from './readyChoices';

it('every source, drawn shape, step of a look and ready layer has its small picture', () => {
  const { shape, onto } = STEP_SETTINGS.drawn;
  const all = [
    ...SOURCE_KINDS.map(({ value }) => choicePicture('source', value)),
    ...STEP_KINDS.map((kind) => choicePicture('step', kind)),
    ...Object.keys(READY).map(readyPicture),
    ...shape.choices.map((value) => settingPicture(shape, value)!),
  ];
  const missing = all.filter((address) => !existsSync(new URL(`../../../public${address}`, import.meta.url)));
  expect(missing).toEqual([]);
  expect(settingPicture(onto, 'colour')).toBeUndefined();
});
