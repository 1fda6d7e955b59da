import { describe, expect, it } from 'vitest';
import { readToneTable } from './toneTable.ts';

const CUBE = `# warm
TITLE "Fenlight dusk"
LUT_3D_SIZE 2
DOMAIN_MIN 0 0 0
DOMAIN_MAX 1 1 2
0 0 0
1 0 0
0 1 0
1 1 0
0 0 1
1 0 1
0 1 1
1 1 1
`;

describe('a table of colours', () => {
  it('is read with its size, its borders and its entries in order', () => {
    const table = readToneTable(CUBE);
    expect([table.kind, table.size, table.from, table.to]).toEqual(['cube', 2, [0, 0, 0], [1, 1, 2]]);
    expect([...table.values.slice(3, 6)]).toEqual([1, 0, 0]);
    expect(table.values.length).toBe(24);
    const line = readToneTable('LUT_1D_SIZE 3\r\n0 0 0\r\n.25 .5 .75\r\n1 1 1');
    expect([line.kind, line.size, ...line.values.slice(3, 6)]).toEqual(['line', 3, 0.25, 0.5, 0.75]);
  });

  it.each([
    ['1 1 1', /line 1 .*size has to come before/],
    ['LUT_3D_SIZE 400', /line 1 .*from 2 to 65/],
    ['LUT_1D_SIZE 2\n0 0 0\n1 1', /line 3 .*three numbers/],
    ['LUT_1D_SIZE 2\n0 0 nan\n1 1 1', /line 2 .*three numbers/],
    ['LUT_1D_SIZE 2\n0 0 0', /1 colours; its size asks for 2/],
    ['LUT_1D_SIZE 2\n0 0 0\n1 1 1\n1 1 1', /line 4 .*more colours/],
    ['LUT_1D_SIZE 2\nSHAPER 3\n0 0 0', /line 2 .*“SHAPER” is not known/],
    ['', /no size/],
    ['LUT_1D_SIZE 2\nDOMAIN_MIN 1 0 0\n0 0 0\n1 1 1', /lowest values are not below/],
  ])('that is broken says where and why: %j', (text, why) => expect(() => readToneTable(text)).toThrow(why));
});
