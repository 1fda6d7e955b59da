import { describe, expect, it } from 'vitest';
import { inProportion } from './axes';

describe('axes that go together', () => {
  it('keep their proportions', () => {
    expect(inProportion([1, 2, 0.5], 0, 3, 0, 100)).toEqual([3, 6, 1.5]);
    expect(inProportion([1, 2, 0.5], 1, 1, 0, 100)).toEqual([0.5, 1, 0.25]);
  });
  it('become the same where there is nothing to keep a proportion to', () => {
    expect(inProportion([0, 0, 0], 2, 0.4, 0, 100)).toEqual([0.4, 0.4, 0.4]);
  });
  it('stay within what the setting allows', () => {
    expect(inProportion([1, 8, 1], 0, 5, 0.01, 10)).toEqual([5, 10, 5]);
  });
});
