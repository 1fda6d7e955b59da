import { inEachEffect, itemsOf, loose, type Loose } from './loose.ts';

/** No burst and no hit was muted. */
function muteNone(effect: Loose): void {
  effect['schema'] = 9;
  for (const layer of itemsOf(effect['layers']))
    for (const each of [...itemsOf(layer['bursts']), ...itemsOf(loose(layer['source'])['hits'])])
      each['muted'] = false;
}

/** Schema 9: bursts and hits can be muted. */
export const toSchema9 = (document: Loose): Loose => inEachEffect(document, muteNone);
