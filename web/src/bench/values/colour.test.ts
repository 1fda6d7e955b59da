import { collectionOf, namedColour, type Stop } from '@jinx/core/document';
import { gradientInto, hexOfLinear, readyGradient } from '@jinx/core/maths';
import { expect, it } from 'vitest';
import { withStopAt } from './colour';

const palette = collectionOf([['lamp', namedColour('Lamp', '#ffd27a')]]);
const stops = collectionOf<Stop>([
  ['a', { at: { anchor: 'share', value: 0 }, colour: { palette: 'lamp' } }],
  ['b', { at: { anchor: 'beforeDeath', value: 0.5 }, colour: { hex: '#102040' } }],
]);
const at = (of: typeof stops, x: number): number[] => {
  const rgb = new Float64Array(3);
  gradientInto(readyGradient(of, palette), x, 2, rgb);
  return [...rgb];
};

it('a new stop has the colour that the gradient has there, and changes nothing', () => {
  const more = withStopAt(stops, 'c', 0.4, 2, palette);
  expect(more.byId['c']!.colour).toEqual({ hex: hexOfLinear(at(stops, 0.4)) });
  // A stop is written in eight bits.
  for (const x of [0, 0.2, 0.4, 0.6, 0.75])
    at(more, x).forEach((part, c) => expect(part).toBeCloseTo(at(stops, x)[c]!, 2));
});
