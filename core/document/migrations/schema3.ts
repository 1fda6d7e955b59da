import { emptyCollection } from '../../settings/index.ts';
import { copyOf, fill, itemsOf, type Loose } from './loose.ts';

/** What came with schema 3, by default. */
const LAYER = {
  'life.turns': 'degrees a second',
  'life.aligned': false,
  'life.tilt': [0, 0, 0],
  'life.axle': [0, 0, 1],
};
const LINK = {
  channels: 0,
};

/** Schema 3: channels, turns over a life, sprites along their motion. */
export function toSchema3(document: Loose): Loose {
  const result = copyOf({ ...document, schema: 3, channels: emptyCollection() }) as Loose;
  for (const layer of itemsOf(result['layers'])) {
    layer['channels'] = emptyCollection();
    fill(layer, LAYER);
    for (const link of itemsOf(layer['links'])) fill(link, LINK);
  }
  return result;
}
