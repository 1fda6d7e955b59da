import { expect, it } from 'vitest';
import { kitFile, kitOffered } from './kitChoices';

const KIT = ['lantern.glb', 'marsh.png', 'moth.png', 'reed.glb', 'sedge.glb'];
const assets = [
  { kind: 'rig' as const, name: 'Reed' },
  { kind: 'picture' as const, name: 'Moth' },
  { kind: 'picture' as const, name: 'Sedge' },
];

it('the kit’s meshes, or its pictures, are offered as far as the project has them not', () => {
  expect(kitOffered(KIT, assets, 'rig').map(({ text }) => text)).toEqual([
    'lantern, from the Fenlight kit',
    'sedge, from the Fenlight kit',
  ]);
  const [marsh, ...others] = kitOffered(KIT, assets, 'picture');
  expect(others).toEqual([]);
  expect(kitFile(marsh!.value)).toBe('marsh.png');
  expect(kitFile('a'.repeat(64))).toBeNull();
});
