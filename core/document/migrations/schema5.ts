import { copyOf, fill, itemsOf, loose, type Loose } from './loose.ts';

/** Settings of what is drawn as meshes, by default. */
const MESH = {
  roughness: 70,
  metalness: 0,
  otherShape: 0,
  vertexColours: true,
  shadow: false,
};

const SURROUNDINGS = { isOn: true, picture: null, brightness: 1, turn: 0 };

/** Schema 5: surroundings that shining things mirror; meshes with another shape. */
export function toSchema5(document: Loose): Loose {
  const result = copyOf({ ...document, schema: 5 }) as Loose;
  const stage = loose(result['stage']);
  stage['air'] = { surroundings: { ...SURROUNDINGS }, ...loose(stage['air']) };
  for (const layer of itemsOf(result['layers'])) {
    const drawn = loose(layer['drawn']);
    if (drawn['kind'] === 'mesh') fill(drawn, MESH);
  }
  return result;
}
