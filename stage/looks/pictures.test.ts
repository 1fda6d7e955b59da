import { describe, expect, it } from 'vitest';
import { Pictures } from './pictures.ts';

describe('pictures of looks', () => {
  it('are clear while they are not here, so that no white square is seen on the way', () => {
    const pictures = new Pictures();
    const rgba = () => [...(pictures.of('reeds').image as { data: Uint8Array }).data];
    expect(rgba()).toEqual([0, 0, 0, 0]);
    const texture = { width: 1, height: 1, rgba: new Uint8Array([255, 0, 0, 255]) };
    pictures.set([{ hash: 'reeds', texture }]);
    expect(rgba()).toEqual([255, 0, 0, 255]);
    pictures.set([]);
    expect(rgba()).toEqual([0, 0, 0, 0]);
  });
});
