import { emptyCollection } from '../../settings/index.ts';
import { copyOf, fill, itemsOf, loose, type Loose } from './loose.ts';

/** Kinds of force that are felt from one spot. */
const SOFT: ReadonlySet<unknown> = new Set(['attraction', 'vortex', 'push']);

/** Schema 6: forces felt from one spot have a softness, which was the same for all; dials that switch, hues that are turned; cameras that are kept. */
export function toSchema6(document: Loose): Loose {
  const result = copyOf({ ...document, schema: 6 }) as Loose;
  const forces = [
    ...itemsOf(result['forces']).map(({ force }) => loose(force)),
    ...itemsOf(result['layers']).flatMap(({ forces: own }) => itemsOf(own)),
  ];
  for (const force of forces) if (SOFT.has(force['kind'])) fill(force, { softness: 0.05 });
  for (const layer of itemsOf(result['layers'])) layer['seenBy'] = null;
  for (const dial of itemsOf(result['dials'])) dial['kind'] = 'number';
  for (const entry of itemsOf(result['palette'])) {
    entry['isDial'] = false;
    const colour = loose(entry['colour']);
    if (colour['kind'] === 'derived') colour['turned'] = 0;
  }
  loose(result['stage'])['cameras'] = emptyCollection();
  return result;
}
