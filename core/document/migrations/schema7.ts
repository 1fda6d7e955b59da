import { emptyCollection } from '../../settings/index.ts';
import { copyOf, itemsOf, type Loose } from './loose.ts';

/** Schema 7: groups that are other effects; signals, for which bursts may wait; dials of places, directions, pictures, meshes. */
export function toSchema7(document: Loose): Loose {
  const result = copyOf({ ...document, schema: 7, signals: emptyCollection() }) as Loose;
  for (const group of itemsOf(result['groups'])) group['linked'] = null;
  for (const layer of itemsOf(result['layers'])) for (const burst of itemsOf(layer['bursts'])) burst['signal'] = null;
  return result;
}
